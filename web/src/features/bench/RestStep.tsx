import { figure } from "../../lib/numbers";
import { useAlarm } from "./alarm";
import { Words } from "./DoStep";
import { Back, Hourglass, Press, useLeft } from "./parts";
import type { StepProps } from "./step";

/** A clock that is kept on disk: reload and power cut do not stop it. */
export function RestStep(props: StepProps) {
  const { batch, step, act, onBack } = props;
  const { minutes } = step;
  const timer = batch.state.timer?.step === step.key ? batch.state.timer : null;
  const left = useLeft(timer?.ends_at);
  useAlarm(left === 0 ? "up" : null);
  return (
    <div className="flex flex-col gap-6">
      <Words text={step.text} caution={step.caution} />
      {timer && left !== null && (
        <Hourglass
          left={left}
          whole={(timer.minutes * 60) / batch.clock_rate}
          word={left > 0 ? "rest" : "time is up"}
        />
      )}
      <div className="flex gap-3">
        <Back onBack={onBack} />
        {timer || minutes === null ? (
          <Press next={!timer || left === 0} onClick={() => void act({ kind: "done", step: step.key })}>
            {timer && left !== 0 ? "Go on before time" : "Go on"}
          </Press>
        ) : (
          <Press next onClick={() => void act({ kind: "timer", step: step.key, minutes })}>
            Start {figure(minutes)} minutes
          </Press>
        )}
      </div>
    </div>
  );
}
