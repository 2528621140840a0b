using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drafting;

/// <summary>Tries the ways in which a draft can be put together, on the samples.</summary>
internal static class DraftTrial
{
    /// <summary>What one choice proves may open another, so all are gone through twice.</summary>
    private const int Rounds = 2;

    /// <summary>The plan that proves the most: choice after choice, the best of its options stays.</summary>
    /// <param name="choices">Each with its options, the likeliest first; it stays where no other is better.</param>
    public static DraftPlan Best(DraftPlan plan, IReadOnlyList<ImmutableArray<DraftWay>> choices, ImmutableArray<Sample> samples)
    {
        // Options often come to a document that was tried already, and most of the second round does.
        var tried = new Dictionary<string, (int, int, int, int)>(StringComparer.Ordinal);
        (int, int, int, int) Score(DraftPlan one)
        {
            var document = one.Document();
            return tried.TryGetValue(document, out var score) ? score : tried[document] = ScoreOf(one, samples);
        }
        foreach (var options in choices.Where(options => !options.IsEmpty))
            plan = options[0](plan);
        var best = Score(plan);
        for (var round = 0; round < Rounds; round++)
        {
            var before = plan;
            foreach (var options in choices)
            {
                foreach (var option in options)
                {
                    var other = option(plan);
                    var score = Score(other);
                    if (score.CompareTo(best) > 0)
                        (plan, best) = (other, score);
                }
            }
            if (plan == before)
                break;
        }
        return plan;
    }

    /// <summary>What the plan captures from each sample.</summary>
    public static ImmutableArray<CheckedInvoice> Take(DraftPlan plan, ImmutableArray<Sample> samples) =>
        plan.Template() is { } template ? [.. samples.Select(sample => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, template)))] : [];

    private static (int Proved, int Findings, int Cells, int Unproved) ScoreOf(DraftPlan plan, ImmutableArray<Sample> samples) =>
        Take(plan, samples) is { IsEmpty: false } invoices ? ScoreOf(invoices, plan.Rows) : (int.MinValue, 0, 0, 0);

    /// <summary>
    /// What is proved less what is in doubt; then the fewest findings, the most values, and the fewest numbers that nothing proves.
    /// </summary>
    /// <remarks>
    /// Findings alone would not do: one row that swallows forty has three of them, forty rows of which five wrap oddly have five.
    /// </remarks>
    /// <param name="rows">How many item rows the invoices have, if it is known; else 0.</param>
    public static (int Proved, int Findings, int Cells, int Unproved) ScoreOf(ImmutableArray<CheckedInvoice> invoices, int rows)
    {
        var findings = invoices.Sum(invoice => invoice.Findings.Count(finding => finding.Severity == Severity.Hold));
        var missing = Math.Max(0, rows - invoices.Sum(invoice => invoice.Captured.Lines.Length));
        return (
            invoices.Sum(invoice => invoice.Ties.Count(tie => tie.Holds)) - (DoubtWeighs * (findings + missing)),
            -findings,
            invoices.Sum(invoice => invoice.Captured.Fields.Length + invoice.Captured.Lines.Sum(line => line.Cells.Count(cell => cell.Name != TradeNames.Section))),
            -invoices.Sum(invoice => invoice.Unproved.Length));
    }

    /// <summary>A finding takes away as much as so many ties give.</summary>
    private const int DoubtWeighs = 3;
}
