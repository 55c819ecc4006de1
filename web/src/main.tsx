import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { Route, Switch } from "wouter";
import { TradeProvider } from "./app/catalogue";
import { Door } from "./app/Door";
import { Fallen } from "./app/Fallen";
import "./app/styles.css";
import { BenchPlace } from "./places/bench/BenchPlace";
import { RigsPlace } from "./places/rigs/RigsPlace";
import { Drawn } from "./ui/Drawn";

// The shelf and the bench are what a window opens with; the rest comes when it is asked for.
const NewRigPlace = lazy(async () => ({ default: (await import("./places/new/NewRigPlace")).NewRigPlace }));
const BriefPlace = lazy(async () => ({ default: (await import("./places/brief/BriefPlace")).BriefPlace }));
const ShellPlace = lazy(async () => ({ default: (await import("./places/shell/ShellPlace")).ShellPlace }));
const WeightsPlace = lazy(async () => ({ default: (await import("./places/weights/WeightsPlace")).WeightsPlace }));

const NightPlace = lazy(async () => ({ default: (await import("./places/night/NightPlace")).NightPlace }));
const DrainPlace = lazy(async () => ({ default: (await import("./places/drain/DrainPlace")).DrainPlace }));
const LayUpPlace = lazy(async () => ({ default: (await import("./places/layup/LayUpPlace")).LayUpPlace }));
const WalkPlace = lazy(async () => ({ default: (await import("./places/walk/WalkPlace")).WalkPlace }));
const LogPlace = lazy(async () => ({ default: (await import("./places/log/LogPlace")).LogPlace }));

const client = new QueryClient({ defaultOptions: { queries: { retry: 1 } } });

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <Fallen>
        <Door>
          <TradeProvider>
            <Suspense fallback={<Drawn picture="loading" role="status" title="Loading…" />}>
              <Switch>
                <Route path="/new">
                  <NewRigPlace />
                </Route>
                <Route path="/rigs/:id/shell">{({ id }) => <ShellPlace id={id} />}</Route>
                <Route path="/rigs/:id/weights">{({ id }) => <WeightsPlace id={id} />}</Route>
                <Route path="/rigs/:id/night">{({ id }) => <NightPlace id={id} />}</Route>
                <Route path="/rigs/:id/drain">{({ id }) => <DrainPlace id={id} />}</Route>
                <Route path="/rigs/:id/layup">{({ id }) => <LayUpPlace id={id} />}</Route>
                <Route path="/rigs/:id/walk/:walk">{({ id, walk }) => <WalkPlace id={id} walkId={walk} />}</Route>
                <Route path="/rigs/:id/log">{({ id }) => <LogPlace id={id} />}</Route>
                <Route path="/rigs/:id/brief">{({ id }) => <BriefPlace id={id} />}</Route>
                <Route path="/rigs/:id">{({ id }) => <BenchPlace id={id} />}</Route>
                <Route path="/">
                  <RigsPlace />
                </Route>
                <Route>
                  <main className="p-8">
                    This page doesn't exist.{" "}
                    <a href="/" className="underline">
                      All rigs
                    </a>
                  </main>
                </Route>
              </Switch>
            </Suspense>
          </TradeProvider>
        </Door>
      </Fallen>
    </QueryClientProvider>
  </StrictMode>,
);
