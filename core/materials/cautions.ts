/** Short cautions that go with materials. They defer: data sheets, local rules and licensed practice decide. */
export type CautionId =
  | "gypsum-dust"
  | "gypsum-heat"
  | "glass-fibre"
  | "polyester"
  | "epoxy"
  | "isocyanate"
  | "thickener-dust"
  | "silicone-cure"
  | "lifting"
  | "drains";

export const CAUTIONS: Readonly<Record<CautionId, string>> = {
  "gypsum-dust": "Gypsum dust harms the lungs: mask and extraction when mixing, rasping and sanding.",
  "gypsum-heat": "Setting gypsum burns: never enclose a hand or limb in it.",
  "glass-fibre": "Glass fibre: sleeves, goggles and a dust mask when cutting and trimming.",
  polyester:
    "Polyester: vapour respirator, no flame. The peroxide hardener blinds: goggles; never mix it with accelerator directly.",
  epoxy: "Epoxy sensitises: gloves, sleeves, ventilation. Stop if your skin reacts.",
  isocyanate: "Isocyanates: vapour respirator, gloves, ventilation. Stop if you react; keep water away.",
  "thickener-dust": "Fumed silica thickener: dust mask and still air when weighing.",
  "silicone-cure":
    "Test a patch: sulphur clay, latex gloves, tin silicone or fresh polyester can stop platinum silicone from curing.",
  lifting: "A section over your lift limit wants two people or a hoist.",
  drains: "Never wash gypsum down a drain.",
};

export const DEFERENCE = "Figures are estimates. Data sheets, local rules and licensed practice decide.";
