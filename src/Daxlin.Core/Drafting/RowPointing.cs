using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Json;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>A person points at something of the item rows and says what it is; here is what the template then says and gives.</summary>
/// <remarks>
/// As with single values, each way to say it is put into the template and tried by the capture on all invoices at hand; those
/// under which the most is proved and the least in doubt go first. Only the first block of item rows is changed.
/// </remarks>
public static class RowPointing
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>So many ways are offered; a person reads no more.</summary>
    private const int MostWays = 6;

    /// <param name="shown">The invoice that was pointed at.</param>
    /// <param name="place">Where, as a person sees the page; null for <see cref="RowMeaning.Rows"/>.</param>
    /// <param name="column">The column's name, for <see cref="RowMeaning.Column"/> and <see cref="RowMeaning.Placed"/>.</param>
    /// <param name="template">A template document; its block of item rows may be missing or faulty, since it is what is being said.</param>
    /// <param name="others">Other invoices of the vendor.</param>
    /// <returns>The best first; none if nothing stands there.</returns>
    public static ImmutableArray<RowWay> Ways(
        Sample shown, PlaceOnPage? place, RowMeaning what, string? column, string template, Habits reads, IReadOnlyList<Sample> others)
    {
        var pointed = place is { } at ? PointedWords.At(shown, at) : null;
        if (pointed is null && what != RowMeaning.Rows)
            return [];
        // Places are then those of its lines, also where its text runs up or down.
        ImmutableArray<Sample> samples = [shown.Upright, .. others];
        var candidates = RowCandidates.Of(what, pointed, column, template, reads, samples);
        var patterns = new PatternCache();
        var ways = new List<(RowWay Way, (int, int, int, int) Score, string Rows)>();
        foreach (var (document, says) in candidates)
        {
            var text = document.ToJsonString(Json) + "\n";
            if (TemplateReader.Check(text, patterns) is not { Template: { } changed })
                continue;
            ImmutableArray<CheckedInvoice> invoices = [.. samples.Select(sample => InvoiceChecks.Check(InvoiceCapture.Capture(sample.Pages, changed)))];
            if (what == RowMeaning.Section && !IsSection(invoices[0], pointed!))
                continue;
            var way = new RowWay(
                text, says, invoices[0].Captured.Lines.Length, invoices.Count(invoice => invoice.IsClear),
                invoices.Sum(invoice => invoice.Findings.Count(finding => finding.Severity == Severity.Hold)));
            ways.Add((way, DraftTrial.ScoreOf(invoices, 0), RowsOf(invoices)));
        }
        return [.. ways.OrderByDescending(one => one.Score)
            // Ways that give the same rows are one to a person; the first is the plainest.
            .DistinctBy(one => what == RowMeaning.Rows ? one.Rows : one.Way.Template)
            .Take(MostWays).Select(one => one.Way)];
    }

    private static string RowsOf(ImmutableArray<CheckedInvoice> invoices) => string.Join('\n', invoices.SelectMany(invoice => invoice.Captured.Lines)
        .Select(line => string.Join('|', line.Cells.Select(cell => $"{cell.Name}={cell.Value}"))));

    private static bool IsSection(CheckedInvoice invoice, PointedWords pointed) => invoice.Captured.Lines
        .Select(line => line.Find(TradeNames.Section)).OfType<CapturedValue>()
        .Any(section => section.Trace.Places.Any(place => place.Page == pointed.Page.Number && place.Box.SharedWidth(pointed.Box) > 0 && place.Box.SharedHeight(pointed.Box) > 0));
}
