import type { ReactNode } from "react";
import { Link } from "react-router";
import { Row } from "./layout";

/** A page's name, and the ways on. */
export const PageHead = ({ title, ways }: { title: ReactNode; ways: { to: string; name: string }[] }) => (
  <Row $between style={{ marginBottom: 16 }}>
    <h1 style={{ marginInlineEnd: "auto" }}>{title}</h1>
    {ways.map((way) => (
      <Link key={way.to} to={way.to} style={{ color: "inherit", fontWeight: 600 }}>
        {way.name}
      </Link>
    ))}
  </Row>
);
