/** Skerry Coast: a canoe-sprint and judo centre. Everybody here is invented. */
export interface DemoAthlete {
  name: string;
  /** Bench press that a training day gives, kg. */
  benchKg: number;
  squatKg: number;
  birthYear: number;
  trainingYears: number;
  /** Days since the newest tested record. */
  testedDaysAgo: number;
  instruction?: string;
}

export interface DemoSquad {
  name: string;
  sport: string;
  room: "Boathouse" | "Dojo gym";
  athletes: DemoAthlete[];
}

const one = (
  name: string,
  benchKg: number,
  squatKg: number,
  birthYear: number,
  trainingYears: number,
  testedDaysAgo = 33,
  instruction?: string,
): DemoAthlete => ({
  name,
  benchKg,
  squatKg,
  birthYear,
  trainingYears,
  testedDaysAgo,
  instruction,
});

export const DEMO_SQUADS: DemoSquad[] = [
  {
    name: "Sprint kayak",
    sport: "Canoe sprint",
    room: "Boathouse",
    athletes: [
      one("Maren Solhaug", 92.5, 125, 2001, 6.2),
      one("Ilse Brandvik", 77.5, 107.5, 2004, 3.4),
      one("Teodora Lenk", 75, 100, 2003, 4.1),
      one("Arno Velde", 132.5, 165, 1999, 8),
      one("Joss Harrow", 117.5, 150, 2002, 5.3),
      one("Liv Estrand", 82.5, 112.5, 2000, 6.8),
      one("Pia Morvan", 70, 97.5, 2005, 2.2),
      one("Ansel Quist", 145, 190, 1998, 9.5, 71),
      one("Finn Aldous", 125, 155, 2001, 5.9),
      one("Roza Timm", 80, 115, 2002, 4.6),
      one("Eero Lahtinmaa", 100, 120, 2006, 0.6),
      one("Yara Coste", 72.5, 105, 2004, 3.1),
    ],
  },
  {
    name: "Sprint canoe",
    sport: "Canoe sprint",
    room: "Boathouse",
    athletes: [
      one("Cato Brekke", 137.5, 175, 1997, 10.4),
      one("Bela Sandor-Wynn", 120, 150, 2003, 4.9),
      one("Runa Fjell", 77.5, 110, 2002, 5.1),
      one("Dag Ollerton", 130, 160, 2000, 7.3),
      one("Sanne Kuiper-Lind", 72.5, 102.5, 2005, 2.7),
      one("Goran Tesk", 140, 180, 1999, 8.8, 64),
      one("Emeka Strand", 142.5, 185, 2001, 6.6),
      one("Wim Ostrova", 112.5, 145, 2004, 3.8),
    ],
  },
  {
    name: "Judo",
    sport: "Judo",
    room: "Dojo gym",
    athletes: [
      one("Noor Halden", 80, 115, 2000, 6.1),
      one("Quill Marsten", 115, 150, 2003, 4.4),
      one("Tova Ryland", 67.5, 95, 2007, 1.8, 33, "No maximal tests; guardian's consent on file."),
      one("Ivo Castellane", 127.5, 170, 1998, 9.1),
      one("Hanne Dorset", 75, 107.5, 2002, 4.7),
      one("Marek Olund", 135, 177.5, 1999, 8.2),
      one("Sol Averin", 105, 140, 2004, 3.3, 60),
      one("Brita Lauder", 70, 100, 2001, 5.5, 33, "Squat no deeper than the box."),
    ],
  },
];

export interface DemoPerson {
  name: string;
  email: string;
  role: "owner" | "coach" | "assistant" | "athlete";
  athlete?: string;
}

export const DEMO_PASSWORD = "skerry-coast-demo";

export const DEMO_PEOPLE: DemoPerson[] = [
  { name: "Hedda Voss", email: "owner@skerry.example", role: "owner" },
  { name: "Callum Reyk", email: "coach@skerry.example", role: "coach" },
  { name: "Ines Fallow", email: "assistant@skerry.example", role: "assistant" },
  {
    name: "Maren Solhaug",
    email: "maren@skerry.example",
    role: "athlete",
    athlete: "Maren Solhaug",
  },
];
