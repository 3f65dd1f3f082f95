import { type PaperLanguage, paperLanguageOf } from './orderPaper';

/** What stands on papers, by language. */
export type PaperWords = {
  readonly locale: string;
  readonly order: string;
  readonly change: (no: number) => string;
  readonly differs: string;
  readonly supplier: string;
  readonly deliverTo: string;
  /** Where every line goes to a customer of its own. */
  readonly eachLine: string;
  readonly invoiceTo: string;
  readonly date: string;
  readonly payment: string;
  readonly delivery: string;
  readonly by: string;
  readonly contact: string;
  readonly item: string;
  readonly quantity: string;
  readonly wanted: string;
  readonly price: string;
  readonly net: string;
  readonly yourNumber: string;
  readonly ourNumber: string;
  readonly makersNumber: string;
  readonly edition: string;
  readonly free: string;
  readonly per: (n: string) => string;
  readonly for: string;
  readonly less: (percent: string) => string;
  readonly goods: string;
  readonly tax: (percent: string, of: string) => string;
  readonly total: string;
  readonly withoutTax: string;
  readonly withTax: string;
  readonly approvedBy: string;
  readonly quote: string;
  readonly page: (n: number, of: number) => string;
  readonly added: string;
  readonly takenOff: string;
  readonly instead: string;
  readonly otherPlaces: string;
  readonly noDate: string;
  /** In the subject of a mail, before our name. */
  readonly from: string;
  /** Of a pack: "3.28 per bag". */
  readonly each: (pack: string) => string;
  /** A reminder: its subject, and what stands before and after what it is about. */
  readonly remind: Readonly<Record<'confirm' | 'overdue', Reminder>>;
  readonly expected: string;
};
type Reminder = {
  readonly subject: (number: string) => string;
  readonly opening: (number: string, day: string) => string;
  readonly closing: string;
};

const en: PaperWords = {
  locale: 'en-GB',
  order: 'Purchase order',
  change: (no) => `Change ${no}`,
  differs: 'What differs from what you have:',
  supplier: 'Supplier',
  deliverTo: 'Deliver to',
  eachLine: 'as each line says',
  invoiceTo: 'Invoice to',
  date: 'Date',
  payment: 'Payment',
  delivery: 'Delivery',
  by: 'by',
  contact: 'Questions to',
  item: 'Item',
  quantity: 'Quantity',
  wanted: 'Wanted',
  price: 'Price per pack',
  net: 'Net',
  yourNumber: 'Your number',
  ourNumber: 'Our number',
  makersNumber: 'Maker’s number',
  edition: 'Edition',
  free: 'free of charge',
  per: (n) => `for ${n}`,
  for: 'For',
  less: (p) => `less ${p} %`,
  goods: 'Goods',
  tax: (p, of) => `Tax ${p} % of ${of}`,
  total: 'Total',
  withoutTax: 'without tax',
  withTax: 'with tax',
  approvedBy: 'Approved by',
  quote: 'Please quote the order number on delivery note and invoice.',
  page: (n, of) => `page ${n} of ${of}`,
  added: 'added',
  takenOff: 'taken off',
  instead: 'instead of',
  otherPlaces: 'for other places',
  noDate: 'no date',
  from: 'from',
  each: (pack) => `per ${pack}`,
  remind: {
    confirm: {
      subject: (number) => `Please confirm order ${number}`,
      opening: (number, day) => `We have no confirmation yet of our order ${number} of ${day}:`,
      closing: 'Please confirm its dates and prices.',
    },
    overdue: {
      subject: (number) => `When will order ${number} come?`,
      opening: (number, day) => `Of our order ${number} of ${day} this has not come yet:`,
      closing: 'Please tell us when it will come.',
    },
  },
  expected: 'expected',
};

const de: PaperWords = {
  locale: 'de-DE',
  order: 'Bestellung',
  change: (no) => `Änderung ${no}`,
  differs: 'Was von Ihrem Stand abweicht:',
  supplier: 'Lieferant',
  deliverTo: 'Lieferung an',
  eachLine: 'wie je Zeile angegeben',
  invoiceTo: 'Rechnung an',
  date: 'Datum',
  payment: 'Zahlung',
  delivery: 'Lieferung',
  by: 'mit',
  contact: 'Fragen an',
  item: 'Artikel',
  quantity: 'Menge',
  wanted: 'Liefertermin',
  price: 'Preis je Packung',
  net: 'Netto',
  yourNumber: 'Ihre Nummer',
  ourNumber: 'Unsere Nummer',
  makersNumber: 'Herstellernummer',
  edition: 'Ausgabe',
  free: 'kostenlos',
  per: (n) => `für ${n}`,
  for: 'Für',
  less: (p) => `abzüglich ${p} %`,
  goods: 'Waren',
  tax: (p, of) => `Steuer ${p} % auf ${of}`,
  total: 'Summe',
  withoutTax: 'ohne Steuer',
  withTax: 'mit Steuer',
  approvedBy: 'Freigegeben von',
  quote: 'Bitte geben Sie die Bestellnummer auf Lieferschein und Rechnung an.',
  page: (n, of) => `Seite ${n} von ${of}`,
  added: 'neu',
  takenOff: 'entfällt',
  instead: 'statt',
  otherPlaces: 'für andere Orte',
  noDate: 'ohne Termin',
  from: 'von',
  each: (pack) => `je ${pack}`,
  remind: {
    confirm: {
      subject: (number) => `Bitte bestätigen Sie Bestellung ${number}`,
      opening: (number, day) => `Zu unserer Bestellung ${number} vom ${day} fehlt uns Ihre Bestätigung:`,
      closing: 'Bitte bestätigen Sie Termine und Preise.',
    },
    overdue: {
      subject: (number) => `Wann kommt Bestellung ${number}?`,
      opening: (number, day) => `Von unserer Bestellung ${number} vom ${day} ist noch nicht gekommen:`,
      closing: 'Bitte teilen Sie uns mit, wann es kommt.',
    },
  },
  expected: 'erwartet',
};

const fr: PaperWords = {
  locale: 'fr-FR',
  order: 'Commande',
  change: (no) => `Modification ${no}`,
  differs: 'Ce qui change par rapport à votre exemplaire :',
  supplier: 'Fournisseur',
  deliverTo: 'Livrer à',
  eachLine: 'selon chaque ligne',
  invoiceTo: 'Facturer à',
  date: 'Date',
  payment: 'Paiement',
  delivery: 'Livraison',
  by: 'par',
  contact: 'Questions à',
  item: 'Article',
  quantity: 'Quantité',
  wanted: 'Date voulue',
  price: 'Prix par colis',
  net: 'Net',
  yourNumber: 'Votre référence',
  ourNumber: 'Notre référence',
  makersNumber: 'Réf. fabricant',
  edition: 'Édition',
  free: 'gratuit',
  per: (n) => `pour ${n}`,
  for: 'Pour',
  less: (p) => `moins ${p} %`,
  goods: 'Marchandises',
  tax: (p, of) => `Taxe ${p} % sur ${of}`,
  total: 'Total',
  withoutTax: 'hors taxes',
  withTax: 'taxes comprises',
  approvedBy: 'Approuvée par',
  quote: 'Merci d’indiquer le numéro de commande sur le bon de livraison et la facture.',
  page: (n, of) => `page ${n} sur ${of}`,
  added: 'ajouté',
  takenOff: 'supprimé',
  instead: 'au lieu de',
  otherPlaces: 'pour d’autres lieux',
  noDate: 'sans date',
  from: 'de',
  each: (pack) => `par ${pack}`,
  remind: {
    confirm: {
      subject: (number) => `Merci de confirmer la commande ${number}`,
      opening: (number, day) => `Nous n’avons pas encore de confirmation de notre commande ${number} du ${day} :`,
      closing: 'Merci de confirmer les dates et les prix.',
    },
    overdue: {
      subject: (number) => `Quand arrivera la commande ${number} ?`,
      opening: (number, day) => `De notre commande ${number} du ${day}, ceci n’est pas encore arrivé :`,
      closing: 'Merci de nous dire quand cela arrivera.',
    },
  },
  expected: 'attendu le',
};

const languages: Readonly<Record<PaperLanguage, PaperWords>> = { en, de, fr };

/** The words of a language as it is on file for a supplier ("de", "de-AT"); English where there are none. */
export const paperWords = (language: string): PaperWords => languages[paperLanguageOf(language)];
