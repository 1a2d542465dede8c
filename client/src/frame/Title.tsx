/** What the browser calls the page: the nearest thing first. */
export const Title = (props: { words: (string | undefined)[] }) => (
  <title>{[...props.words.filter(Boolean), "Palaestra"].join(" · ")}</title>
);
