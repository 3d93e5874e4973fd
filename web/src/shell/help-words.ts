import type { RoomPath } from '../shared/rooms.js';

/** What one wants to know of a room, one thing a sentence. */
export const ROOM_HELP: Readonly<Record<RoomPath, readonly string[]>> = {
  kit: [
    'Say what you have as you would say it: “guitar into wah into 2 drives, then a combo”. What is unclear is asked about.',
    'A list from a spreadsheet goes in as it is, under “Paste a table”. You say what its columns mean.',
    'Click a box to change its name, its MIDI channel, how it counts and what it does when it is switched on.',
    'In the same place it can be swapped for another, or opened: jacks, inside, controls, figures.',
    'A box that is on no shelf is made with “New box”, and kept on your own shelf for other rigs.',
  ],
  routing: [
    'Click a jack on the map, then what should come there. Offers that do not fit say why.',
    'Starting points wire what you have after a few questions, and say what is to get.',
    'A hook-up is one way of wiring the rig. Copy it for the fly date or the small stage, and see what to pull and plug.',
    'For the house: the list of lines that the engineer wants, ready to print.',
    '“Try a box tonight” puts a borrowed box into the test loop or between two boxes, and takes it off again.',
    'Signal, MIDI, control and power are layers below the map; each can be shown or hidden.',
  ],
  sounds: [
    'A row is a sound: it says which stages are in. Which loop, program or switch brings them there is worked out.',
    'Click a chosen cell again, or press Space, to turn a stage over. Type a value where there is one.',
    'Beside its name stands what calls the sound: a slot, a song of a list, a cue. Click it to choose another place.',
    '▸ marks what changes from the row above. Copy, paste and Ctrl D work as in a spreadsheet.',
    '“Without a box” and a press on a tag show the sound without that box, and who else uses it.',
    '“Order, ends, hands” is also where it is said what your hands do in a sound: pickup, volume, a knob.',
    'Below the sheet a reason can stand beside a cell, so that nobody has to remember it.',
    'Moves change a few things and give them back.',
  ],
  set: [
    'Songs hold cues: names of sounds with ; or , between them, such as “verse: Clean; solo: Lead”.',
    'A set is songs in their order. Carry one by its number, or with Alt and an arrow; say where the break is.',
    'Beside a song stands what is to be done before it, how many stomps it needs, and what may come back wrong.',
    'Under “Slots” it is worked out where the sounds are best stored, so that no song needs a bank key.',
    '“Times” tells delay times at a tempo, what a delay is in it, and what two delays make together. Tap instead of typing.',
    '“On stage” shows one song, what comes now and next, and what to hit. It works without a server.',
  ],
  program: [
    'What every box must hold, slot by slot, as you stand before it. Tick off what you have typed in.',
    'Only what really changed comes back open.',
    'Write down what stands in a box already, and it is proved with as it stands.',
    'Under “Knobs and hands” it is written where knobs stand that no memory holds: gain 2 o’clock, tone noon.',
    'Record what the controller really sends, and have it compared with what it should send.',
  ],
  proof: [
    'It asks of every sound: whatever was stomped before, does everything come back as the sound wants it?',
    'Where something does not, the shortest way there is shown as footsteps. Play it on the bench.',
    'Cures were tried by the prover before they are offered.',
    'What has to be checked by hand before the show stands on the right: taped knobs, switches, the guitar’s volume.',
    'Press a pair of the board: what foot and hand do, what stays if it is forgotten, whether a beat is enough.',
    'You say what may happen: somebody steps on a box, a box loses its power.',
  ],
  bench: [
    'Stomp with the mouse, a finger, or the keys 1 to 9 and 0. Hold a switch to hold it; two can be down at once.',
    'The boxes read the real bytes. On the wire you see each of them, and who reacts.',
    'Under “Something happens” a cable is pulled, a supply fails, a byte is lost. It can be put right again.',
    'What you played can be kept as a test, and is played again whenever the rig changes.',
  ],
};

/** Words that this program uses in one meaning only. */
export const GLOSSARY: readonly (readonly [word: string, means: string])[] = [
  ['Rig', 'Everything between the hands and the house: boxes, cables, programs, sounds, songs.'],
  ['Hook-up', 'One way of wiring the rig. The same sounds can be had in several.'],
  ['Stage', 'A part of a box that a sound can have in or out: a drive, a channel, an echo.'],
  ['Loop', 'A send and a return by which a box takes others in and out of the way.'],
  ['Four cables', 'The preamp of an amp taken into a loop: front in, send back, and out into its return.'],
  ['Slot', 'A numbered place of a controller that a switch calls, such as 1A.'],
  ['Program', 'What a box holds under a number and loads when it is told to.'],
  ['Move', 'A switch that changes a few things within a sound and gives them back.'],
  ['Comes back', 'Everything that the sound wants is there after its stomp, whatever was done before.'],
  ['By foot, by hand', 'What no message sets: a switch on a box to step on, a knob to turn.'],
  ['Held until let go', 'A frozen note, a loop that plays: no sound takes it back.'],
  ['On trial', 'A box that is tried, and can be taken off again with its leads as they were.'],
  ['Can come back wrong', 'There is a way of playing after which the sound is not as it should be.'],
  ['Taken for granted', 'What the proof trusts you to check before the show.'],
  ['Gap', 'A short silence while a box loads.'],
  ['Tails', 'What an echo or reverb still gives when its sound is left.'],
];
