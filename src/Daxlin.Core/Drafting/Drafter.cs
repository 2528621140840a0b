using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>Proposes a template from samples of one vendor's invoices.</summary>
/// <remarks>
/// First every part is found by itself: how the vendor writes, captions, headings, what the columns are by arithmetic, which
/// amounts add up. Then the parts are put together, and where there are several ways (what begins a row, how text wraps,
/// which caption), each is tried on the samples by the capture and its checks; the one that proves the most stays.
/// </remarks>
public static class Drafter
{
    /// <summary>The most samples that are looked at; more teach little and take long.</summary>
    public const int MostSamples = 10;

    /// <param name="vendor">The vendor's name if it is known; else it is looked for.</param>
    /// <param name="others">Invoices of other vendors, which the template must not recognise.</param>
    /// <param name="takenNames">Names of templates that are there; the draft gets one of its own.</param>
    /// <exception cref="DraftException">Nothing can be drafted from the samples.</exception>
    public static TemplateDraft Draft(
        ImmutableArray<Sample> samples, string? vendor = null, IReadOnlyCollection<Sample>? others = null, IReadOnlyCollection<string>? takenNames = null)
    {
        if (samples.IsEmpty)
            throw new DraftException("no-samples", "A template is drafted from one invoice at least.");
        var seen = samples;
        samples = [.. samples.Take(MostSamples).Select(sample => sample.Upright)];
        if (samples.FirstOrDefault(sample => !sample.Lines.Any()) is { } empty)
            throw new DraftException("no-text", $"{empty.FileName} has no text to draft from; a scan must be read first.");
        var (reads, readNotes) = HabitsDraft.Of(samples);
        var language = SampleLanguage.Of(samples);
        var name = vendor?.Trim() is { Length: > 0 } given ? given : VendorDraft.Of(samples);
        var header = HeaderDraft.Of(samples, reads);
        var items = ItemsDraft.Of(samples, reads);
        var second = items is null ? null : ItemsDraft.Second(samples, reads, items);
        var ends = samples.Select((_, index) => second?.Ends[index] ?? items?.Ends[index]).ToImmutableArray();
        var stated = samples.Select((sample, index) => TotalsDraft.StatedOn(sample, ends[index], reads)).ToList();
        var totals = samples.Select((_, index) => TotalsDraft.Of(stated[index], [.. items?.Amounts[index] ?? [], .. second?.Amounts[index] ?? []], reads)).ToImmutableArray();
        if (header.IsEmpty && items is null && totals.All(one => one is null))
            throw new DraftException("nothing-found", "Nothing on the samples looks like an invoice: no caption that Daxlin knows, no headings of item rows, no total.");

        var (must, recognised) = RecognitionDraft.Of(samples, others ?? [], name, header, items?.Headings);
        var plan = DraftPlan.Of(reads with { TaxIncluded = totals.Any(one => one is { TaxIncluded: true }) }) with
        {
            Vendor = name ?? "Unknown vendor",
            Name = DraftPlan.NameOf(name ?? "", takenNames ?? []),
            Must = must,
            CreditNote = language.CreditNotes,
            Rows = items?.Rows ?? 0,
            Stand = items is null ? ItemsDraft.NotFound : null,
            Items = items?.Plan is { } found ? found with { HasRulesOfMarks = samples.Any(sample => sample.Lines.Any(line => line.Text.Length > 5 && line.Text.All(c => "-=_.*~".Contains(c, StringComparison.Ordinal)))) } : null,
        };
        plan = plan.With(TradeNames.VendorName, new JsonObject { ["where"] = new JsonObject { ["always"] = plan.Vendor } })
            .With(TradeNames.Currency, new JsonObject { ["where"] = new JsonObject { ["always"] = reads.Currency.Code } });
        var choices = HeaderDraft.Names.Select(field => FieldChoices.OfHeader(field, header.GetValueOrDefault(field, []), language)).ToList();
        choices.AddRange(FieldChoices.OfTotals(totals, samples, reads, language));
        choices.Add(TaxesDraft.Ways(samples, ends, totals, reads));
        if (items is not null)
            choices.AddRange(ItemChoices.Of(items, second, totals, samples));
        if (samples.Any(sample => sample.Pages.Length > 1))
            choices.Add([plan => plan with { SkipFirst = 0 }, plan => plan with { SkipFirst = 1 }]);
        plan = DraftTrial.Best(plan, choices, samples);
        var invoices = DraftTrial.Take(plan, [.. seen.Take(samples.Length)]);
        return new TemplateDraft(plan.Document(), DraftNotes.Of(plan, [recognised, .. readNotes], items, invoices, name is not null), invoices);
    }

    /// <summary>What stands out on some pages as a vendor's name does, the most likely first. Invoices of one vendor get one name by it, before there is a template.</summary>
    public static ImmutableArray<string> VendorsOf(ImmutableArray<Page> pages) => [.. VendorDraft.AllOf([new Sample("", pages)]).Take(MostNames)];

    /// <summary>What comes after so many is an address or a slogan.</summary>
    private const int MostNames = 6;
}
