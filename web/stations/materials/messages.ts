/** Everything the station Materials says, part by part; figures come in as they are shown. */

type Shown = string | number;

export const messages = {
  buyingList: {
    rimefell: "RIMEFELL",
    title: (date: Shown) => `Buying list, ${date}`,
    sectionsIn: (sections: number, system: Shown) =>
      `${sections} ${sections === 1 ? "section" : "sections"} in ${system}`,
    jacketIn: (thickness: Shown, coats: number) =>
      `jacket of ${thickness} in ${coats} ${coats === 1 ? "coat" : "coats"}`,
    bought: "bought:",
    takeCare: "Take care",
    footnote: (deference: Shown) =>
      `${deference} Quantities include the waste shown in the plan. What you have in stock is not taken off.`,
  },
  buyingTable: {
    jacket: "Jacket",
    shell: "Shell",
    sundries: "Sundries",
    material: "Material",
    forWhat: "For",
    quantity: "Quantity",
    unit: "Unit",
    buyingList: "Buying list",
    csv: "CSV",
    print: "Print",
    find: "Find in the list",
  },
  sheet: {
    shellSystem: "Shell system",
    layersAndFigures: "Layers and figures",
    figuresAre: (source: Shown) => `Figures are ${source}.`,
    shell: "Shell",
    thickness: "Thickness",
    section: (number: Shown) => `Section ${number}`,
    hoursOfHands: "Hours of hands",
    cost: "Cost",
    takeCare: "Take care",
  },
  course: {
    name: "Materials",
    question: "What do I buy?",
  },
};
