/** Everything the station Jacket says, part by part; figures come in as they are shown. */

type Shown = string | number;

export const messages = {
  offThePiece: {
    formula: "widest girth above ÷ girth there − 1",
    girthAt: (height: Shown) => `girth at ${height}`,
    siliconeTakes: "silicone takes",
    percentBy: (source: Shown) => `%, ${source}`,
    title: "Can it come off in one piece?",
    itMustStretch: "It must stretch",
    slit: (allowed: Shown, height: Shown) =>
      `More than the ${allowed} silicone takes without harm, by the rule of thumb: slit it from the foot ${height} up, where it is least seen, or part it in two. The data sheet decides.`,
    sock: (allowed: Shown) => `Within the ${allowed} silicone takes without harm: it can come off as a sock.`,
  },
  seamPart: {
    looking: "Looking…",
    theJacketsOwnSeam: "The jacket's own seam",
    madeBy: "Made by",
    seam: "Seam",
    makingIt: "Making it",
    finish: (places: number) => `Finish, ${places} ${places === 1 ? "place" : "places"}`,
    none: "None: a sock",
    oneSlit: "One slit",
    twoParts: "Two parts",
    formula: "length × minutes a metre",
    leaveIt: "Leave it",
    suggestARoute: "Suggest a route",
    drawIt: "Draw it",
    stillHangs:
      "The two parts still hang together through a hole in the piece: this is the longest of the cuts it takes. Close the holes with clay in the survey, then suggest again.",
    suggestedWhere:
      "The suggestion runs where it is least seen, round the zones to keep clear, straight, and long enough for the stretch.",
  },
  sheet: {
    coats: "Coats",
    formula: "(volume of the jacket − volume of the piece + rim) × density",
    inAll: (total: Shown) => `${total} in all`,
    tint: "Tint",
    thickness: "Thickness",
    thickened: "Thickened",
    silicone: "Silicone",
    pigmentOfCoat: (coat: Shown) => `Pigment of coat ${coat}`,
    printCoat: "print coat",
    coatIsThickened: (coat: Shown) => `Coat ${coat} is thickened`,
    leaveOutCoat: (coat: Shown) => `Leave out coat ${coat}`,
    addACoat: "Add a coat",
    tooThick: "Over 12 mm: it wastes silicone and will not stretch off easily.",
    tooThin: "Under 4 mm: it will be too floppy to hold its shape and will tear.",
    outside: "Outside",
    smoothing: "Smoothing",
    smoothingHint: "the radius that a hand or a palette knife rounds off",
    footClay: "Foot clay",
    footClayHint: "gaps under the piece up to this height are closed with clay",
    rimOnTheBoard: "Rim on the board",
    cutTheJacketAway: "Cut the jacket away",
    onThePiece: "On the piece",
    volume: "Volume",
    outerSurface: "Outer surface",
    workedOutAtAStepOf: "Worked out on a grid of",
    thicknessOfCoat: (number: Shown) => `Thickness of coat ${number}`,
  },
  course: {
    name: "Jacket",
    question: "How thick, how smooth?",
  },
};
