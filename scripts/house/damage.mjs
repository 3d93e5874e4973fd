/** What keeps a database from running, by what it writes into its log: the first that fits. */
const SIGNS = [
  [
    'full',
    /No space left on device|Errcode: 28|errno: 28|error:?(?: number)?:? 28\b|Disk (?:is )?full|The table '.*' is full/i,
  ],
  [
    'in use',
    /Unable to lock \.\/ibdata1|Can't lock aria (?:log )?control file|Check that you do not already have another mariadbd/i,
  ],
  [
    'newer',
    /upgrade after a crash is not supported|Unsupported redo log format|was created with (?:a newer|MariaDB)|Invalid flags 0x/i,
  ],
  [
    'log lost',
    /ib_logfile\d* was not found|Missing FILE_CHECKPOINT|Missing MLOG_CHECKPOINT|Invalid log header checksum|Invalid header checksum|log sequence number .* (?:is )?in the future/i,
  ],
  [
    'damaged',
    /corrupt|page checksum|Aria recovery failed|Aria engine is not enabled|Can't find messagefile|Cannot open tablespace|Could not find a valid tablespace|Fatal error: Can't open and lock privilege tables|Data file .* is of a different size|Assertion failure|got signal (?:6|7|11)|signal 11|Plugin 'InnoDB' (?:init function returned error|registration)/i,
  ],
  ['not allowed', /Errcode: 13|errno: 13|Permission denied/i],
];

/**
 * @param text the last words of the database's log
 * @returns what is the matter with it: full, in use, newer, log lost, damaged, not allowed; undefined when it does not
 * say
 */
export const matterOf = (text) => SIGNS.find(([, sign]) => sign.test(text))?.[0];

const restore = (backup) =>
  backup
    ? `The newest backup is ${backup}. Go back to it with:\n\n  ./yunta restore ${backup}\n\nWhat stands in the folder now is set aside, not deleted.`
    : 'There is no backup in this folder. If you kept one elsewhere: ./yunta restore FILE. What stands in the folder now is set aside, not deleted.';

/** The same for a person: what is the matter, and what to do. */
export const matterInWords = (matter, { folder, log, backup }) => {
  switch (matter) {
    case 'full':
      return `The disk is full: the database has no room at ${folder}. Free some space there, then ./yunta start. What was saved is safe.`;
    case 'in use':
      return `The data in ${folder} is in use by another database. Stop the Yunta that uses it, then ./yunta start.`;
    case 'newer':
      return `The data in ${folder} was written by a newer database than the one installed here. Install Debian's newer mariadb-server, or restore a backup: a backup can be read by any version.\n${restore(backup)}`;
    case 'log lost':
      return `The database's own log in ${folder} is lost or cannot be read, so it cannot tell what was written last.\n${restore(backup)}`;
    case 'damaged':
      return `The data in ${folder} is damaged. Its disk may be failing.\n${restore(backup)}`;
    case 'not allowed':
      return `The database may not write in ${folder}. Its files must belong to the user that runs Yunta; as root, ./yunta start puts that right.`;
    default:
      return `The database does not start; its last words are in ${log}.\n${restore(backup)}`;
  }
};
