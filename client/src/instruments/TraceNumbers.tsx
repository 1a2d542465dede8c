import { Link } from "react-router";
import type { SideMeasure, TraceView } from "../api/types";
import { Quiet, Small } from "../controls/layout";
import { SideTag } from "../controls/SideTag";
import { Table, Wide } from "../controls/Table";
import { seconds } from "../controls/words";

const number = (value: number, digits = 1) =>
  value.toLocaleString("en-GB", { minimumFractionDigits: digits, maximumFractionDigits: digits });

/** What each channel came to, with its unit. */
export function ChannelNumbers({ view }: { view: TraceView }) {
  const seen = view.reading.analysis;
  if (!seen) return null;
  return (
    <Wide label="What each channel came to">
      <Table>
        <thead>
          <tr>
            <th>Channel</th>
            <th>In the band</th>
            <th>Farthest</th>
            <th>Sway</th>
            <th>Path a second</th>
            <th>Trembling</th>
          </tr>
        </thead>
        <tbody>
          {seen.channels.map((c, i) => {
            const { name, unit } = view.setup.channels[i]!;
            return (
              <tr key={c.channel}>
                <th scope="row">{name}</th>
                <td>{seconds(c.inBandSeconds)}</td>
                <td>
                  {number(c.farthest)} {unit}
                </td>
                <td>
                  {number(c.swayRms, 2)} {unit}
                </td>
                <td>
                  {number(c.pathPerSecond, 2)} {unit}
                </td>
                <td>{c.tremorRms === null ? "too short" : `${number(c.tremorRms ?? 0, 2)} ${unit}`}</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Wide>
  );
}

/** How long a cuff stood about what it is set to. */
export function LevelNumbers({ view }: { view: TraceView }) {
  return view.reading.levels.map((l) => {
    const unit = view.setup.channels.find((c) => c.channel === l.channel)?.unit ?? "";
    return (
      <p key={l.channel}>
        <strong>
          {seconds(l.heldSeconds)} from {l.set - l.within} to {l.set + l.within} {unit}
        </strong>
        , {seconds(l.belowSeconds)} below, {seconds(l.aboveSeconds)} above{" "}
        {l.mean !== null && (
          <Quiet>
            mean {number(l.mean ?? 0)}, from {number(l.lowest ?? 0)} to {number(l.highest ?? 0)} {unit}
          </Quiet>
        )}
      </p>
    );
  });
}

export function RepNumbers({ view }: { view: TraceView }) {
  const { reps } = view.reading;
  if (reps.length === 0) return <Small>No reps show in this trace.</Small>;
  return (
    <Wide label="Reps">
      <Table>
        <thead>
          <tr>
            <th>Rep</th>
            <th>From</th>
            <th>Out</th>
            <th>Held</th>
            <th>Back</th>
            <th>Whole</th>
          </tr>
        </thead>
        <tbody>
          {reps.map(({ rep, rushed }, i) => (
            <tr key={rep.start}>
              <th scope="row">{i + 1}</th>
              <td>{seconds(rep.start)}</td>
              <td>{seconds(rep.out ?? 0)}</td>
              <td>{seconds(rep.hold ?? 0)}</td>
              <td>{seconds(rep.back ?? 0)}</td>
              <td>
                {seconds(rep.seconds ?? 0)} {rushed && <strong>too fast</strong>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Wide>
  );
}

const digits = (m: SideMeasure) => (m.unit === "%" ? 0 : m.unit === "s" ? 1 : 2);

/** Both sides of the task; the one that was held less well is named. */
export function SideNumbers({ view }: { view: TraceView }) {
  if (view.sides.length === 0) return null;
  return (
    <section>
      <h2>Side against side</h2>
      <Wide label="Side against side">
        <Table>
          <thead>
            <tr>
              <th>What</th>
              <th>
                <SideTag side="left" />
              </th>
              <th>
                <SideTag side="right" />
              </th>
              <th>Held less well</th>
            </tr>
          </thead>
          <tbody>
            {view.sides.map((m) => (
              <tr key={m.name}>
                <th scope="row">{m.name}</th>
                <td>
                  {number(m.left, digits(m))} {m.unit}
                </td>
                <td>
                  {number(m.right, digits(m))} {m.unit}
                </td>
                <td>{m.less ? <SideTag side={m.less} /> : "even"}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
      <Small>
        Differences up to 15 % are even: one person differs by as much from minute to minute.{" "}
        <Link to={`../traces/${view.otherSide}`}>See the other side</Link>
      </Small>
    </section>
  );
}
