namespace Daxlin.Core.Electronic;

/// <summary>The codes of UNTDID 1001 for documents by which the vendor owes the amounts, as far as EN 16931 takes them.</summary>
internal static class CreditNoteTypes
{
    public const string Credit = "381";
    public const string SelfBilledCredit = "261";

    /// <summary>A commercial invoice.</summary>
    public const string Invoice = "380";
}
