/** Short names for the generated types. Nothing is declared here that the server does not say. */
import type { components } from "./schema";

type Schemas = components["schemas"];
export type Job = Schemas["Job"];
export type Panel = Schemas["PlacedPanel"];
export type Obstacle = Schemas["Obstacle"];
export type Reading = Schemas["Reading"];
export type Foot = Schemas["Foot"];
export type PanelModel = Schemas["PanelModel"];
export type Evaluation = Schemas["Evaluation"];
export type Findings = Schemas["Findings"];
export type Snag = Schemas["Snag"];
export type StationState = Schemas["StationState"];
export type Carrier = Job["carriers"][number];
export type CarrierVerdict = Schemas["CarrierVerdict"];
export type Raising = Job["raisings"][number];
export type RaisedVerdict = Schemas["RaisedVerdict"];
export type Tether = Job["tethers"][number];
export type TetherVerdict = Schemas["TetherVerdict"];
export type RowFit = Schemas["RowFit"];
export type FootPlace = Schemas["FootPlace"];
export type FootVerdict = Schemas["FootVerdict"];
export type PanelVerdict = Schemas["PanelVerdict"];
export type Link = Schemas["Link"];
export type LinkVerdict = Schemas["LinkVerdict"];
export type Member = Schemas["Member"];
export type Mark = Schemas["Mark"];
export type Shape = Schemas["Shape"];
export type Proposals = Schemas["Proposals"];
export type Proposal = Schemas["Proposal"];
export type SlowAnswer =
  | Schemas["ProposalsAnswer"]
  | Schemas["YearAnswer"]
  | Schemas["RemediesAnswer"]
  | Schemas["HoldAnswer"]
  | Schemas["SchoolsAnswer"]
  | Schemas["WaterAnswer"]
  | Schemas["GroupingsAnswer"]
  | Schemas["DaysAnswer"]
  | Schemas["HelpsAnswer"]
  | Schemas["SureAnswer"]
  | Schemas["RealityAnswer"]
  | Schemas["TogetherAnswer"];
export type ShopPlan = Schemas["ShopPlan"];
export type VehiclePlan = Schemas["VehiclePlan"];
export type Neighbour = Schemas["Neighbour"];
export type Due = Schemas["Due"];
export type Elsewhere = Schemas["Elsewhere"];
export type Glance = Schemas["Glance"];
export type DayPlan = Schemas["DayPlan"];
export type PlannedStep = Schemas["PlannedStep"];
export type ArrayCurve = Schemas["ArrayCurve"];
export type GroupingFinding = Schemas["GroupingFinding"];
export type HoldOffer = Schemas["HoldOffer"];
export type MaterialCut = Schemas["MaterialCut"];
export type WaterFinding = Schemas["WaterFinding"];
export type SealSection = Schemas["SealSection"];
export type GlandCheck = Schemas["GlandCheck"];
export type SealPlace = Schemas["SealPlace"];
export type Piece = Schemas["Piece"];
export type FootFit = Schemas["FootFit"];
export type PurchaseLine = Schemas["PurchaseLine"];
export type OnShelf = Schemas["OnShelf"];
export type ShopItem = Schemas["ShopItem"];
export type ItemTable = Schemas["ItemTable"];
export type SchoolLine = Schemas["SchoolLine"];
export type LayoutFigures = Schemas["LayoutFigures"];
export type VariantLine = Schemas["VariantLine"];
export type YieldFinding = Schemas["YieldFinding"];
export type LayoutChange = Schemas["Change"];
export type PanelTable = Schemas["PanelTable"];
export type Snap = Schemas["Snap"];
export type ArrangeOrder = Schemas["Arrange"]["order"];
export type Rect = Schemas["Rect"];
export type CrownFinding = NonNullable<Findings["survey"]["crown"]>;
export type LidSwing = Schemas["LidSwing"];
export type ShadeMoment = Schemas["ShadeMoment"];
export type Raised = Schemas["Raised"];
export type NextCheck = Schemas["NextCheck"];
export type Spot = Schemas["Spot"];
export type UnderstoodOutline = Schemas["UnderstoodOutline"];
export type VehicleKind = Job["vehicle"]["kind"];
export type Working = Schemas["Working"];
export type Step = Schemas["Step"];
export type JobAnswer = Schemas["JobAnswer"];
export type JobListed = Schemas["JobListed"];
export type Catalogue = Schemas["Catalogue"];
export type ErrorBody = Schemas["ErrorBody"];
export type ReadingsTable = Schemas["ReadingsTable"];
export type ReadingKind = Reading["kind"];
export type Units = Job["units"];
export type StationName = StationState["station"];
export type Edit = Schemas["EditRequest"]["edits"][number];
export type Remedy = components["schemas"]["Remedy"];
export type New = Schemas["Changed"] | Schemas["Spliced"];
export type JobLog = Schemas["JobLog"];
export type LogEntry = Schemas["Logged"]["entry"];
export type WorkStep = Schemas["WorkStep"];
