import { useRef } from "react";
import { useMove } from "react-aria";
import styled, { useTheme } from "styled-components";
import type { PhotoSpot } from "../api/types";
import { lines, spotWords, type SpotName, type Spots } from "./spots";

export interface Picture {
  /** None: the picture was not kept, only its points. */
  url: string | null;
  width: number;
  height: number;
}

const Sheet = styled.svg`
  display: block;
  width: 100%;
  height: min(620px, calc(100dvh - 264px));
  background: ${({ theme }) => theme.colour.wash};
  [data-spot] {
    touch-action: none;
  }
  [data-spot]:focus-visible {
    outline: none;
  }
  [data-spot]:focus-visible .ring {
    stroke-width: 6px;
  }
`;

/** The picture with its points; a tap puts the one that is asked for, points are dragged or moved by arrow keys. */
export function PhotoStage(props: {
  picture: Picture;
  spots: Spots;
  /** None: nothing is being put, and nothing moves. */
  onPut?: (spot: PhotoSpot) => void;
  onMove?: (name: SpotName, spot: PhotoSpot) => void;
  /** A point and where it lies, in words; wanted where points move. */
  told?: (name: SpotName, at: PhotoSpot) => string;
}) {
  const { picture, spots } = props;
  const { colour } = useTheme();
  const sheet = useRef<SVGSVGElement>(null);
  // Dots are as large as a finger can hit whatever the picture's size.
  const unit = Math.max(picture.width, picture.height) / 620;
  const names = (Object.keys(spots) as SpotName[]).filter((name) => spots[name]);
  // Names stand outward, so that those of two sides do not meet.
  const across = names.filter((name) => !isAid(name)).map((name) => spots[name]!.x);
  const middle = (Math.min(...across) + Math.max(...across)) / 2;
  const put = (e: React.MouseEvent) => {
    const box = sheet.current?.getScreenCTM()?.inverse();
    if (!box || !props.onPut) return;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(box);
    props.onPut(within(picture, at));
  };
  return (
    <Sheet ref={sheet} viewBox={`0 0 ${picture.width} ${picture.height}`} onClick={put}>
      {picture.url ? (
        <image href={picture.url} width={picture.width} height={picture.height} />
      ) : (
        <rect width={picture.width} height={picture.height} fill={colour.sheet} />
      )}
      {lines.map(([a, b]) => {
        const from = spots[a];
        const to = spots[b];
        return (
          from &&
          to && (
            <g key={a + b}>
              <line
                x1={from.x}
                y1={from.y}
                x2={to.x}
                y2={to.y}
                stroke={colour.sheet}
                strokeWidth={5 * unit}
              />
              <line
                x1={from.x}
                y1={from.y}
                x2={to.x}
                y2={to.y}
                stroke={isAid(a) ? colour.sea : colour.clay}
                strokeWidth={2.5 * unit}
                strokeDasharray={isAid(a) ? `${7 * unit} ${5 * unit}` : undefined}
              />
            </g>
          )
        );
      })}
      {names.map((name) => (
        <Dot
          key={name}
          name={name}
          at={spots[name]!}
          unit={unit}
          left={spots[name]!.x < middle}
          sheet={sheet}
          told={props.told?.(name, spots[name]!)}
          onMove={props.onMove && ((spot) => props.onMove?.(name, within(picture, spot)))}
        />
      ))}
    </Sheet>
  );
}

const isAid = (name: SpotName) => name.startsWith("length") || name.startsWith("plumb");

const within = (picture: Picture, spot: PhotoSpot): PhotoSpot => ({
  x: Math.round(Math.max(0, Math.min(picture.width, spot.x)) * 10) / 10,
  y: Math.round(Math.max(0, Math.min(picture.height, spot.y)) * 10) / 10,
});

function Dot(props: {
  name: SpotName;
  at: PhotoSpot;
  unit: number;
  /** Its name stands to the left of it. */
  left: boolean;
  sheet: React.RefObject<SVGSVGElement | null>;
  told: string | undefined;
  onMove?: (spot: PhotoSpot) => void;
}) {
  const { at, unit, onMove } = props;
  const { colour, font } = useTheme();
  // A drag comes in small steps, faster than React hands the last one back.
  const now = useRef(at);
  const { moveProps } = useMove({
    onMoveStart() {
      now.current = at;
    },
    onMove(e) {
      // Keys move by a pixel of the picture, a finger by as much as it moved on the screen.
      const scale = e.pointerType === "keyboard" ? 1 : 1 / (props.sheet.current?.getScreenCTM()?.a ?? 1);
      now.current = { x: now.current.x + e.deltaX * scale, y: now.current.y + e.deltaY * scale };
      onMove?.(now.current);
    },
  });
  const tone = isAid(props.name) ? colour.sea : colour.clay;
  return (
    <g
      data-spot={props.name}
      {...(onMove ? moveProps : {})}
      tabIndex={onMove ? 0 : undefined}
      role={onMove ? "button" : undefined}
      aria-label={onMove ? props.told : undefined}
      onClick={(e) => e.stopPropagation()}
      style={{ cursor: onMove ? "grab" : undefined }}
    >
      <circle cx={at.x} cy={at.y} r={20 * unit} fill="transparent" />
      <circle
        className="ring"
        cx={at.x}
        cy={at.y}
        r={9 * unit}
        fill="none"
        stroke={colour.sheet}
        strokeWidth={5 * unit}
      />
      <circle
        className="ring"
        cx={at.x}
        cy={at.y}
        r={9 * unit}
        fill="none"
        stroke={tone}
        strokeWidth={2.5 * unit}
      />
      <circle cx={at.x} cy={at.y} r={1.8 * unit} fill={tone} />
      <text
        x={at.x + (props.left ? -14 : 14) * unit}
        y={at.y - 10 * unit}
        textAnchor={props.left ? "end" : "start"}
        fontFamily={font.text}
        fontSize={14 * unit}
        fontWeight={600}
        fill={tone}
        stroke={colour.sheet}
        strokeWidth={4 * unit}
        paintOrder="stroke"
      >
        {spotWords[props.name]}
      </text>
    </g>
  );
}
