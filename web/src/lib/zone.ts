/** The zone this device's clock follows, by its name in the IANA database. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Names of all zones to choose from, one that is set already among them. */
export const zonesWith = (set: string) =>
  [...new Set(["UTC", ...Intl.supportedValuesOf("timeZone"), ...(set ? [set] : [])])].sort();

/** How a moment is told by a zone's clock; a zone that is only an offset is read too. */
export const byClockOf = (zone: string, at: string | number, how: Intl.DateTimeFormatOptions) =>
  new Date(at).toLocaleString("en-GB", { ...how, timeZone: zone });
