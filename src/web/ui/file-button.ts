/** How the button inside a field for a file looks. */
export const FILE_BUTTON =
  "file:mr-2.5 file:h-8 file:cursor-pointer file:rounded-control file:border file:border-rule file:bg-paper file:px-2.5 file:font-semibold hover:file:border-act";
