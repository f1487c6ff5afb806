export { GuidePage } from "./GuidePage";
export { WelcomePage } from "./WelcomePage";
