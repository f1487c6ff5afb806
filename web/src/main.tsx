import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { applyTheme } from "./app/theme";
import "./styles.css";

// What a dialog's scroll lock writes into the page carries the nonce of this answer, so that no other inline style can.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? "");
applyTheme();
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
