import { useState } from "react";
import { Link } from "react-router";
import { type DeviceRole, messageOf, usePairedDevices, usePairing, useRevoke } from "../../api";
import { Button, useNotice } from "../../ui";

const ROLES: readonly [DeviceRole, string][] = [
  ["look", "only looks"],
  ["bench", "works at the bench, the rack and the tub"],
  ["all", "does everything but pair and back up"],
];

/** Which tablets and telephones may come in over the network, and a code for the next. */
export function DevicesPage() {
  const devices = usePairedDevices();
  const pairing = usePairing();
  const revoke = useRevoke();
  const say = useNotice();
  const [role, setRole] = useState<DeviceRole>("bench");
  const onPair = () =>
    void pairing.mutateAsync(role).catch((error: unknown) => say(messageOf(error), { asks: true }));
  const code = pairing.data;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Devices</h1>
      <p className="max-w-[860px] text-row text-soft">
        Whoever is paired may come in over the network, as far as its role goes; everybody else sees nothing.{" "}
        <Link className="underline underline-offset-4" to="/settings">
          Settings
        </Link>
      </p>
      {devices.error && <p className="pt-4 text-rosy">{messageOf(devices.error)}</p>}
      {devices.data && !devices.data.lan && (
        <p className="max-w-[860px] pt-4 text-reading">
          The studio is served to this machine alone. Start it with <b>rosy-kettle serve --lan</b> to let
          paired devices in.
        </p>
      )}
      {devices.data?.lan && (
        <section aria-label="Pair a device" className="pt-5">
          <p className="flex flex-wrap items-end gap-5 text-row">
            <label>
              The next device{" "}
              <select
                className="written text-row"
                value={role}
                onChange={(event) => setRole(event.target.value as DeviceRole)}
              >
                {ROLES.map(([id, words]) => (
                  <option key={id} value={id}>
                    {words}
                  </option>
                ))}
              </select>
            </label>
            <Button primary onClick={onPair} disabled={pairing.isPending}>
              Show a code
            </Button>
          </p>
          {code && (
            <div className="flex flex-wrap items-center gap-10 pt-5">
              <QrSymbol rows={code.qr} />
              <div>
                <p className="text-body">
                  On the device open <b>{code.address}</b> and type
                </p>
                <p className="text-figure font-[350] leading-none">
                  {code.code.slice(0, 4)} {code.code.slice(4)}
                </p>
                <p className="pt-1 text-body text-soft">
                  For one device, within {Math.round(code.seconds / 60)} minutes.
                </p>
              </div>
            </div>
          )}
          <p className="max-w-[860px] pt-6 text-body">
            <b>What goes over the network is not encrypted.</b> On a network you do not trust put a proxy with
            a certificate in front that ends TLS and passes on to this address; the guide shows how.
            Everything that comes through a proxy counts as a device and has to be paired.
          </p>
        </section>
      )}
      <ul className="pt-6 text-body">
        {devices.data?.items.map((device) => (
          <li
            key={device.id}
            className="flex flex-wrap items-baseline gap-x-6 border-b-[0.9px] border-ink py-1"
          >
            <b className="w-52">{device.name}</b>
            <span className="w-80">{ROLES.find(([id]) => id === device.role)?.[1]}</span>
            <span className="text-soft">since {device.paired_at.slice(0, 10)}</span>
            <button
              type="button"
              className="min-h-8 underline underline-offset-4"
              onClick={() =>
                void revoke
                  .mutateAsync(device.id)
                  .catch((error: unknown) => say(messageOf(error), { asks: true }))
              }
            >
              Shut it out
            </button>
          </li>
        ))}
      </ul>
      {devices.data?.lan && devices.data.items.length === 0 && (
        <p className="text-body text-soft">No device is paired yet.</p>
      )}
    </div>
  );
}

/** A QR symbol, black on white whatever the light: cameras want it so. */
function QrSymbol({ rows }: { rows: readonly string[] }) {
  const quiet = 4;
  const size = rows.length + 2 * quiet;
  const path = rows
    .flatMap((row, y) =>
      [...row].map((dark, x) => (dark === "1" ? `M${x + quiet} ${y + quiet}h1v1h-1z` : "")),
    )
    .join("");
  return (
    <svg
      role="img"
      aria-label="The address with the code, for a camera"
      width="210"
      height="210"
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}
