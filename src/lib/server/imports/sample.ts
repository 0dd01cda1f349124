/** A few invented sources of different kinds, with something to mend: a title in capitals, an edition, a work twice. */
export const SAMPLE = `@article{sample1, author = {Haverkamp, Lotte and van Dijk, Bram}, title = {Rates of infill in abandoned mill ponds}, journal = {Estuarine Processes}, volume = {12}, number = {4}, pages = {301--319}, year = {2018}, doi = {10.5555/ep.12.301}}
@book{sample2, author = {Brandt, Hedwig}, title = {Dredging and the Law of the Foreshore}, edition = {3rd ed.}, publisher = {Foreshore Press}, address = {Port Ledger}, year = {2011}}
@incollection{sample3, author = {Osei, Kofi}, editor = {Lindqvist, Maja}, title = {Grinding with the moon}, booktitle = {Mills of the Northern Sounds}, pages = {55--78}, publisher = {Strand University Press}, year = {2009}}
@phdthesis{sample4, author = {Zee, Mieke van der}, title = {Ledgers of the tide: Mill leases and their keepers}, school = {University of Northsound}, year = {2015}}
@article{sample5, author = {Adeyemi, Folake}, title = {GLASSWORT COMES HOME}, journal = {Shore Life}, volume = {88}, number = {6}, pages = {14--19}, year = {2020}}
@article{sample6, author = {Haverkamp, L. and van Dijk, B.}, title = {Rates of infill in abandoned mill ponds}, journal = {Estuarine Processes}, volume = {12}, year = {2018}, doi = {https://doi.org/10.5555/EP.12.301}}
`;
