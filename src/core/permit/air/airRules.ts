import { ruleSwitch } from "../kinds/ruleSwitch";

/**
 * What an air test must be to count, one rule a line. Each has a test that fails when its rule is taken out; that is what
 * the switch is for, and nothing else: nobody turns a rule off on a site. Common practice, no source, but for the order of
 * testing.
 */
export const AIR_RULES = {
  point: "a reading stands for its own point",
  gases: "every gas that may be there is read by name",
  age: "a reading dies of age",
  "start age": "when work begins every reading of the round is at most 30 min old",
  round: "a round longer than 20 min an instrument is split over more, or its early points are read again",
  break: "readings before the end of a break do not count after it",
  stop: "readings before a stop do not count after it",
  clock: "readings and purges by a clock that was wrong do not count",
  purge: "readings before the end of a purge do not count after it",
  empty: "readings from before the space was left empty do not count",
  "same air": "a bad reading ends every earlier one in the same air",
  "other permits": "a bad reading under another permit ends the earlier ones in the same air",
  "begun before": "a sample begun before an event is not one taken after it",
  "one place": "one instrument draws at one point at a time",
  withdrawn: "what an instrument said that was withdrawn since does not count",
  sheet: "hose, pump and settling time come from the register, and are asked where they are not there",
  error: "the instrument's error is added at the limits",
  true: "a flammable reading is raised for the gas that may be there",
  nil: "nothing is shown only inside a narrow zero band, zeroed in fresh air this shift",
  sees: "a reading counts only for gases that the instrument sees",
  "not seen": "a gas that no instrument here sees blocks until an approver says what is done instead",
  explained: "oxygen outside 20.8 to 21.5 %, or anything flammable, is explained before anybody enters",
  cause: "after a bad reading nobody goes in until its cause is written down",
  "stands there": "where no cause of a bad reading was found a gas detector stands that sees all that is asked",
  evacuated: "what was confirmed before an evacuation is looked at again after it",
  "purged anew": "after a limit was passed the space is purged anew",
  detector: "a detector replaces retests only where it stands, for gases it sees, and never the first test",
  "judged as air": "what a gas detector sends is judged as air, whatever else it carries",
  "missing gases": "a message without the gases that a detector should carry counts as silence",
  ventilated: "while people are inside the space is ventilated",
  "blower heard": "a blower that says it stands, or says nothing, ends the ventilation, whatever the permit's state",
  bends: "the hose has two bends at most when ventilating, one when purging",
  "first entrant": "corners and ducts are read from inside by one, nobody else goes in until they are",
  "from inside": "nobody reads a corner from the opening",
  cover: "the first test is through the closed cover",
} as const;

export type AirRule = keyof typeof AIR_RULES;

export const { keeps, without } = ruleSwitch<AirRule>();
