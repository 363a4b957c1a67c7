import globals from "globals";

export default [
  {
    files: ["**/*.js"],
    languageOptions: { ecmaVersion: 2023, sourceType: "module", globals: { ...globals.browser, bootstrap: "readonly" } },
    linterOptions: { reportUnusedDisableDirectives: "error" },
    rules: {
      "no-undef": "error",
      "no-unused-vars": ["error", { args: "after-used", caughtErrors: "none" }],
      "no-var": "error",
      "prefer-const": "error",
      eqeqeq: "error",
      "no-implicit-globals": "error",
      "no-shadow": "error",
      "no-use-before-define": ["error", { functions: false, variables: false }],
      "no-unreachable": "error",
      "no-fallthrough": "error",
      "no-self-assign": "error",
      "no-dupe-keys": "error",
      "no-constant-condition": ["error", { checkLoops: false }],
    },
  },
];
