import type { Knex } from "knex";
import * as initial from "./0001-initial";
import * as mailForReal from "./0002-mail-for-real";
import * as sortingAtSpeed from "./0003-sorting-at-speed";
import * as listsAndBin from "./0004-lists-and-bin";
import * as sharedCategories from "./0005-shared-categories";
import * as together from "./0006-together";
import * as rulesAndContacts from "./0007-rules-and-contacts";
import * as waiting from "./0008-waiting";
import * as records from "./0009-records";
import * as keepingRecords from "./0010-keeping-records";
import * as enclosuresAndParcels from "./0011-enclosures-and-parcels";
import * as safeGround from "./0012-safe-ground";
import * as accessAndDisposal from "./0013-access-and-disposal";
import * as asItWasMeant from "./0014-as-it-was-meant";
import * as betterProposals from "./0015-better-proposals";
import * as toldByFeature from "./0016-told-by-feature";
import * as listsOfWhatIsShown from "./0017-lists-of-what-is-shown";
import * as ownersOfWhatIsUnfiled from "./0018-owners-of-what-is-unfiled";
import * as wordsOfTitles from "./0019-words-of-titles";
import * as rulesAsTrees from "./0020-rules-as-trees";
import * as rounds from "./0021-rounds";
import * as automaticAnswers from "./0022-automatic-answers";
import * as ruleVersions from "./0023-rule-versions";
import * as rulesOfWhom from "./0024-rules-of-whom";
import * as draftsOfOnesOwn from "./0025-drafts-of-ones-own";
import * as templates from "./0026-templates";
import * as laterLetters from "./0027-later-letters";

const migrations: ReadonlyMap<string, Knex.Migration> = new Map([
  ["0001-initial", initial],
  ["0002-mail-for-real", mailForReal],
  ["0003-sorting-at-speed", sortingAtSpeed],
  ["0004-lists-and-bin", listsAndBin],
  ["0005-shared-categories", sharedCategories],
  ["0006-together", together],
  ["0007-rules-and-contacts", rulesAndContacts],
  ["0008-waiting", waiting],
  ["0009-records", records],
  ["0010-keeping-records", keepingRecords],
  ["0011-enclosures-and-parcels", enclosuresAndParcels],
  ["0012-safe-ground", safeGround],
  ["0013-access-and-disposal", accessAndDisposal],
  ["0014-as-it-was-meant", asItWasMeant],
  ["0015-better-proposals", betterProposals],
  ["0016-told-by-feature", toldByFeature],
  ["0017-lists-of-what-is-shown", listsOfWhatIsShown],
  ["0018-owners-of-what-is-unfiled", ownersOfWhatIsUnfiled],
  ["0019-words-of-titles", wordsOfTitles],
  ["0020-rules-as-trees", rulesAsTrees],
  ["0021-rounds", rounds],
  ["0022-automatic-answers", automaticAnswers],
  ["0023-rule-versions", ruleVersions],
  ["0024-rules-of-whom", rulesOfWhom],
  ["0025-drafts-of-ones-own", draftsOfOnesOwn],
  ["0026-templates", templates],
  ["0027-later-letters", laterLetters],
]);

/** Every migration there is, in order; a new one is one import and one line. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: async () => [...migrations.keys()],
  getMigrationName: (name) => name,
  getMigration: async (name) => {
    const migration = migrations.get(name);
    if (migration === undefined) throw new Error(`there is no migration ${name}`);
    return migration;
  },
};
