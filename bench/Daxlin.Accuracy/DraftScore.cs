using System.Collections.Immutable;
using Daxlin.Core.Drafting;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;

namespace Daxlin.Accuracy;

/// <summary>How well a family is captured by a template drafted from its first invoices, with no act of a person.</summary>
/// <param name="Fields">Cells of the header, on the invoices that the draft did not see: all, and exact.</param>
/// <param name="Columns">The same for cells of item rows and tax rows.</param>
/// <param name="Whole">Invoices of which every cell is exact.</param>
public sealed record DraftScore(
    string Family, int Samples, (int All, int Exact) Fields, (int All, int Exact) Columns, int Invoices, int Whole, int FalseClear, int Clear,
    TemplateDraft Draft, ImmutableArray<InvoiceScore> Scores)
{
    /// <summary>True of families whose every unseen invoice is exact.</summary>
    public bool IsWhole => Whole == Invoices;

    /// <param name="samples">How many of the first invoices it is drafted from.</param>
    public static DraftScore Of(string directory, int samples)
    {
        var truth = TruthFile.Load(Path.Combine(directory, "truth.json"));
        var files = truth.Invoices.Where(invoice => !invoice.IsOneOfSeveral).Select(invoice => invoice.File).Distinct().Take(samples).ToList();
        var draft = Drafter.Draft([.. files.Select(file => new Sample(file, PdfReader.Read(File.ReadAllBytes(Path.Combine(directory, file)))))]);
        var family = FamilyScore.Of(directory, truth, [TemplateReader.Read(draft.Document)]);
        var unseen = family.Invoices.Where(invoice => !files.Contains(invoice.Truth.File) && !invoice.Truth.IsOneOfSeveral).ToImmutableArray();
        return new DraftScore(
            family.Family, samples, Count(unseen, isRow: false), Count(unseen, isRow: true), unseen.Length, unseen.Count(invoice => invoice.Wrong.IsEmpty),
            unseen.Count(invoice => invoice.IsFalseClear), unseen.Count(invoice => invoice.IsClear), draft, unseen);
    }

    private static (int All, int Exact) Count(ImmutableArray<InvoiceScore> invoices, bool isRow)
    {
        var all = invoices.Sum(invoice => invoice.Cells.Count(name => IsOfRow(name) == isRow));
        return (all, all - invoices.Sum(invoice => invoice.Wrong.Count(cell => IsOfRow(cell.Name) == isRow)));
    }

    private static bool IsOfRow(string name) => name.Contains('.', StringComparison.Ordinal);
}
