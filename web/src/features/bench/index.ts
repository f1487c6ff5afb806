export { BenchPage } from "./BenchPage";
export { Press } from "./parts";
