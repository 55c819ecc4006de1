import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Route, Switch } from "wouter";
import { Fallen } from "./app/Fallen";
import "./app/styles.css";
import { BenchPlace } from "./places/bench/BenchPlace";
import { RigsPlace } from "./places/rigs/RigsPlace";

const client = new QueryClient({ defaultOptions: { queries: { retry: 1 } } });

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <Fallen>
        <Switch>
          <Route path="/rigs/:id">{({ id }) => <BenchPlace id={id} />}</Route>
          <Route path="/">
            <RigsPlace />
          </Route>
          <Route>
            <main className="p-8">
              There is nothing here.{" "}
              <a href="/" className="underline">
                To the shelf
              </a>
            </main>
          </Route>
        </Switch>
      </Fallen>
    </QueryClientProvider>
  </StrictMode>,
);
