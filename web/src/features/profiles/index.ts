export { ProfileChoice } from "./ProfileChoice";
export { bandsOf, missWords, type WantedBand, withBands } from "./profiles";
