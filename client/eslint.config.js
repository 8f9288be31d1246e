import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
    { ignores: ["dist", "src/api/schema.d.ts"] },
    js.configs.recommended,
    ...ts.configs.recommendedTypeChecked,
    a11y.flatConfigs.recommended,
    {
        languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
        plugins: { "react-hooks": hooks },
        rules: {
            "react-hooks/rules-of-hooks": "error",
            "react-hooks/exhaustive-deps": "error",
            // What is opened to be typed into has the focus: a dialog, the door, a field that a key opens (ARIA Authoring Practices, "Dialog").
            "jsx-a11y/no-autofocus": "off",
            // What scrolls is moved by the keys too.
            "jsx-a11y/no-noninteractive-tabindex": ["error", { tags: [], roles: ["region"] }],
        },
        // What the parts of the component library stand for.
        settings: {
            "jsx-a11y": {
                polymorphicPropName: "component",
                components: { Button: "button", TextField: "input", Checkbox: "input" },
            },
        },
    },
    {
        files: ["src/**"],
        ignores: ["src/api/**"],
        // The server is asked in one place: keys, errors, a sign-in that ended.
        rules: { "no-restricted-globals": ["error", { name: "fetch", message: "Ask through api/client." }] },
    },
    {
        files: ["src/desks/**"],
        ignores: ["src/desks/People/Slips.tsx"],
        rules: {
            // Colours are the theme's; a printed slip is black on white.
            "no-restricted-syntax": [
                "error",
                {
                    selector: "Literal[value=/^(#[0-9a-fA-F]{3,8}|(rgb|hsl)a?\\(.*)$/]",
                    message: "Take the colour from the theme.",
                },
            ],
        },
    },
);
