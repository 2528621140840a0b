import { Link } from "react-router";
import { Empty } from "./Notes";
import { useWhereabouts } from "./Trail";

export function NotThere() {
  useWhereabouts("Not there", []);
  return (
    <main className="page">
      <Empty>
        <h1>There is no such page.</h1>
        <p>
          <Link to="/">Go to the batches.</Link>
        </p>
      </Empty>
    </main>
  );
}
