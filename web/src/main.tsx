import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Route, Switch } from "wouter";
import { TradeProvider } from "./app/catalogue";
import { Fallen } from "./app/Fallen";
import "./app/styles.css";
import { BenchPlace } from "./places/bench/BenchPlace";
import { BriefPlace } from "./places/brief/BriefPlace";
import { NewRigPlace } from "./places/new/NewRigPlace";
import { RigsPlace } from "./places/rigs/RigsPlace";
import { ShellPlace } from "./places/shell/ShellPlace";
import { WeightsPlace } from "./places/weights/WeightsPlace";

const client = new QueryClient({ defaultOptions: { queries: { retry: 1 } } });

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <Fallen>
        <TradeProvider>
          <Switch>
            <Route path="/new">
              <NewRigPlace />
            </Route>
            <Route path="/rigs/:id/shell">{({ id }) => <ShellPlace id={id} />}</Route>
            <Route path="/rigs/:id/weights">{({ id }) => <WeightsPlace id={id} />}</Route>
            <Route path="/rigs/:id/brief">{({ id }) => <BriefPlace id={id} />}</Route>
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
        </TradeProvider>
      </Fallen>
    </QueryClientProvider>
  </StrictMode>,
);
