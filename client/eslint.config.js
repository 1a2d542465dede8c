import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  ...tseslint.configs.recommended,
  reactHooks.configs.flat.recommended,
  jsxA11y.flatConfigs.recommended,
  {
    // What a screen says stands in content/words/en/screens.
    files: ["src/**/*.tsx"],
    ignores: ["src/**/*.test.tsx", "src/given/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...[
          "JSXText[value=/[A-Za-z]{2}/]",
          "JSXAttribute[name.name=/^(label|title|hint|placeholder|alt|aria-label)$/] > Literal[value=/./]",
        ].map((selector) => ({
          selector,
          message: "Said through words/say, so that a clinic can say it otherwise.",
        })),
      ],
    },
  },
);
