import { useMantineColorScheme } from "@mantine/core";
import { Link, Outlet } from "react-router";
import { TrailProvider, useTrail } from "./Trail";

/** The bar on every page: where one is, and the way back. */
export function Shell() {
  return (
    <TrailProvider>
      <div className="shell">
        <Bar />
        <Outlet />
      </div>
    </TrailProvider>
  );
}

function Bar() {
  const { trail } = useTrail();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const next = colorScheme === "auto" ? "light" : colorScheme === "light" ? "dark" : "auto";
  return (
    <header className="bar">
      <Link className="name" to="/">
        Daxlin
      </Link>
      <nav aria-label="Where you are">
        <Link to="/">Batches</Link>
        {trail.map((step) => (
          <span key={step.to}>
            {"› "}
            <Link to={step.to}>{step.name}</Link>
          </span>
        ))}
      </nav>
      <span className="end">
        Light:{" "}
        <button type="button" className="plain" onClick={() => setColorScheme(next)}>
          {colorScheme === "auto" ? "as the machine" : colorScheme}
        </button>
      </span>
    </header>
  );
}
