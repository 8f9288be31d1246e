import type { Schemas } from "../../../api/client";
import { Acknowledge } from "../../../parts/Acknowledge";
import { ItemName } from "../../../parts/ThingTable";
import { Written } from "../../../parts/Written";

/** What a class asks its student to read and to acknowledge, above all else in it, until it is done. */
export function ToAcknowledge(props: {
  w: Schemas["WorkspaceView"];
  shut: boolean;
  onPage: (item: number) => void;
}) {
  const { w } = props;
  const wanted = (a?: Schemas["OwnAsking"] | null) => a != null && (a.own || a.home);
  const items = w.items.filter((i) => wanted(i.asked));
  const notices = w.notices.filter((n) => wanted(n.asked));
  if (items.length + notices.length === 0) return null;
  return (
    <section className="to-acknowledge" aria-labelledby="to-acknowledge">
      <h2 id="to-acknowledge">Read this, and say that you have</h2>
      <ul>
        {items.map((i) => (
          <li key={i.id}>
            <ItemName item={i} classId={w.head.id} onPage={props.onPage} />
            <Acknowledge classId={w.head.id} asked={i.asked!} title={i.name} shut={props.shut} />
          </li>
        ))}
        {notices.map((n) => (
          <li key={`n${n.id}`}>
            <Written text={n.text} lines />
            <Acknowledge classId={w.head.id} asked={n.asked!} title="notice" shut={props.shut} />
          </li>
        ))}
      </ul>
    </section>
  );
}
