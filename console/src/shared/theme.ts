import { createTheme, type MantineColorsTuple, Modal } from "@mantine/core";

/** The one accent: what can be acted on, and where a value was found. */
const deep: MantineColorsTuple = [
  "#e8f4f8",
  "#d3e6ec",
  "#a6cdd9",
  "#75b2c5",
  "#4d9cb4",
  "#3489a3",
  "#1f7693",
  "#155e75",
  "#0d4d61",
  "#04394a",
];

export const theme = createTheme({
  fontFamily: "Roboto, sans-serif",
  fontSizes: { xs: "11px", sm: "12.5px", md: "13.5px", lg: "15px", xl: "18px" },
  primaryColor: "deep",
  primaryShade: { light: 7, dark: 6 },
  colors: { deep },
  defaultRadius: 2,
  autoContrast: true,
  components: {
    // A cross says nothing to whoever does not see it; and a dialog's head is not another head of the page.
    Modal: Modal.extend({
      defaultProps: {
        closeButtonProps: { "aria-label": "Close" },
        attributes: { header: { role: "presentation" } },
      },
    }),
  },
});
