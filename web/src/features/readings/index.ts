export { doughAnswer, type Question, questions, toldBy, wantedBand } from "./questions";
export { Readings } from "./Readings";
export { type Registry, type StripReading, stripOf } from "./strips";
export { DraftInHand, sideEffects, Why } from "./Why";
