namespace Daxlin.Core.Electronic;

/// <summary>The codes of UNTDID 1001 for documents by which the vendor owes the amounts, as far as EN 16931 takes them.</summary>
internal static class CreditNoteTypes
{
    private const string Credit = "381";
    private const string SelfBilledCredit = "261";

    /// <summary>An invoice of less than nothing is a credit note by another name, as it is on a page.</summary>
    public static bool IsCredit(string type, decimal? total) => type is Credit or SelfBilledCredit || total < 0;
}
