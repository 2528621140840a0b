import { Link } from "react-router";
import { Empty } from "./Notes";
import { useWhereabouts } from "./Trail";

export function NotThere() {
  useWhereabouts("Not there", []);
  return (
    <main className="page">
      <Empty>
        There is no such page. <Link to="/">Go to the batches.</Link>
      </Empty>
    </main>
  );
}
