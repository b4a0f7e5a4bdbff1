// All of them, for a server: what a page says it looks for here. Browsers have each message where it is said.
import "./categories";
import "./common";
import "./conversation";
import "./deciding";
import "./frame";
import "./keys";
import "./list";
import "./narrowing";
import "./office";
import "./people";
import "./records";
import "./shell";
import "./sort-run";
import "./ui";
import "./waiting";
import "./writing";
