import "@fontsource/barlow-condensed/500.css";
import "@fontsource/barlow-condensed/600.css";
import "@fontsource/ibm-plex-sans/400.css";
import "@fontsource/ibm-plex-sans/600.css";
import { ChakraProvider } from "@chakra-ui/react";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { queries } from "./api/queries";
import "./app/touch.css";
import { App } from "./app/App";
import { applyDensity, applyMode, savedDensity, savedMode } from "./app/mode";
import { keepForOffline } from "./app/offline";
import { system } from "./app/theme";
import { startTape } from "./units/tape";

const root = document.getElementById("root");
applyMode(savedMode());
applyDensity(savedDensity());
startTape();
keepForOffline();
if (root) {
  createRoot(root).render(
    <StrictMode>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </ChakraProvider>
    </StrictMode>,
  );
}
