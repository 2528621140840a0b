namespace Daxlin.Service.History;

/// <summary>The stable words for what is done. New ones are added, none is changed: they are hashed with what they tell.</summary>
internal static class HistoryActs
{
    public const string TakenIn = "takenIn";
    public const string Captured = "captured";
    public const string Corrected = "corrected";
    public const string TemplateChosen = "templateChosen";
    public const string HandedOver = "handedOver";
    public const string Approved = "approved";
    public const string SetAside = "setAside";
    public const string Returned = "returned";
    public const string Posted = "posted";
    public const string Withdrawn = "withdrawn";
    public const string DeliveryAsked = "deliveryAsked";
    public const string Delivered = "delivered";
    public const string DeliveryGivenUp = "deliveryGivenUp";
    public const string DeliverySettled = "deliverySettled";
    public const string ReceiverSaved = "receiverSaved";
    public const string SourceSaved = "sourceSaved";
    public const string SourcePaused = "sourcePaused";
    public const string SourceResumed = "sourceResumed";
    public const string ScheduleSaved = "scheduleSaved";
    public const string SchedulePaused = "schedulePaused";
    public const string ScheduleResumed = "scheduleResumed";
    public const string SecretKept = "secretKept";
    public const string SecretForgotten = "secretForgotten";
    public const string PeriodsClosed = "periodsClosed";
    public const string LayoutSaved = "layoutSaved";
    public const string ListSaved = "listSaved";
    public const string CodingSaved = "codingSaved";
    public const string TemplateSaved = "templateSaved";
    public const string TotalsStated = "totalsStated";
    public const string VendorChanged = "vendorChanged";
    public const string PersonAdded = "personAdded";
    public const string PersonChanged = "personChanged";
    public const string LinkGiven = "linkGiven";
    public const string PasswordSet = "passwordSet";
    public const string SecondFactorSet = "secondFactorSet";
    public const string SecondFactorDropped = "secondFactorDropped";
    public const string SignedIn = "signedIn";
    public const string SignedOut = "signedOut";
    public const string SignInRefused = "signInRefused";
    public const string Locked = "locked";
    public const string KeyMade = "keyMade";
    public const string KeyUsed = "keyUsed";
    public const string KeyRevoked = "keyRevoked";
    public const string Refused = "refused";
    public const string GroupGiven = "groupGiven";
    public const string StandInNamed = "standInNamed";
    public const string StandInEnded = "standInEnded";
    public const string ApprovedFirst = "approvedFirst";
    public const string ApprovalWithdrawn = "approvalWithdrawn";
    public const string ApprovalRulesSaid = "approvalRulesSaid";
}
