using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What a ledger wants to know of a line beside what is printed.</summary>
public static class CodeNames
{
    public const string Account = "account";
    public const string CostCentre = "costCentre";
    public const string Project = "project";
    public const string TaxCode = "taxCode";

    public static readonly ImmutableArray<string> All = [Account, CostCentre, Project, TaxCode];
}
