export { BenchFrame } from "./BenchFrame";
export { BenchPage } from "./BenchPage";
export { Press } from "./parts";
