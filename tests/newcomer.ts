/** The files of an invented company on its first day, as people write them: two places, two suppliers, six items. Suppliers
 *  come from another program (semicolons, decimal comma, Windows-1252); two item rows are faulty. */
export const newcomer = {
  locations:
    'Code,Name,Kind,Delivery address,Working days\nST,Station Road,shop,"Station Road 4, 00512 Ferrowby",Mon-Sat\nBK,Back Lane,warehouse,"Back Lane 1, 00512 Ferrowby",Mon-Fri\n',
  suppliers: Buffer.from(
    [
      'Supplier code;Supplier;Address;E-mail;Currency;Terms of payment;Minimum order;Order days;Delivery time;Lead time in',
      'OLM;Olmbr\u00fccke Garne;Spinnergasse 3, 20771 Olmbr\u00fccke;order@olmbruecke.example;EUR;30 days net;150,00;Mon-Fri;5;working days',
      'TAS;Tassel & Thorn;Hook Row 8, 11032 Thorn;sales@tassel.example;EUR;14 days net;0;Tue Thu;8;calendar days',
    ].join('\r\n'),
    'latin1',
  ),
  items: [
    'Number,Name,Category,Unit,Called,Sale price,Tax rate %,Standard cost,Weight kg',
    '0701,"Marrow wool, ash",Yarn > Wool,C62,ball,6.50,19,3.10,0.055',
    '0702,"Marrow wool, plum",Yarn > Wool,C62,ball,6.50,19,3.10,0.055',
    '0810,Linen tape 12 mm,Ribbon,MTR,metre,1.20,19,0.45,0.004',
    '0811,Linen tape 20 mm,Ribbon,XYZ,metre,1.60,19,0.60,0.006',
    '0900,Tapestry needle 18,Tools,C62,needle,abc,19,0.80,0.002',
    '0905,Row counter,Tools,C62,piece,4.20,19,1.90,0.02',
    '',
  ].join('\n'),
  packs: 'Item,Pack,Content,Usual for buying\n0701,bag,10,yes\n0702,bag,10,yes\n0810,reel,25,yes\n',
  sources:
    'Item,Supplier,Supplier’s number,Pack\n0701,OLM,M-1,bag\n0702,OLM,M-2,bag\n0810,TAS,LT12,reel\n0905,TAS,RC,\n',
  prices:
    'Item,Supplier,From packs,Valid from,Price,Pack\n0701,OLM,0,2026-01-01,31.00,bag\n0701,OLM,5,2026-01-01,29.50,bag\n0702,OLM,0,2026-01-01,31.00,bag\n0810,TAS,0,2026-01-01,11.25,reel\n0905,TAS,0,2026-01-01,1.90,\n',
  'opening-stock':
    'Item,Location,Quantity,Cost,Day\n0701,ST,4,3.10,2026-11-22\n0701,BK,60,3.10,2026-11-22\n0702,ST,22,3.10,2026-11-22\n0810,ST,12.5,0.45,2026-11-22\n0905,ST,9,1.90,2026-11-22\n',
} as const;
