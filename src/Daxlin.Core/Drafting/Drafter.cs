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
public static partial class Drafter
{
    /// <summary>The most samples that are looked at; more teach little and take long.</summary>
    public const int MostSamples = 10;

    /// <param name="vendor">The vendor's name if it is known; else it is looked for.</param>
    /// <param name="others">Invoices of other vendors, which the template must not recognise.</param>
    /// <exception cref="DraftException">Nothing can be drafted from the samples.</exception>
    public static TemplateDraft Draft(ImmutableArray<Sample> samples, string? vendor = null, IReadOnlyCollection<Sample>? others = null)
    {
        if (samples.IsEmpty)
            throw new DraftException("no-samples", "A template is drafted from one invoice at least.");
        samples = [.. samples.Take(MostSamples)];
        if (samples.FirstOrDefault(sample => !sample.Lines.Any()) is { } empty)
            throw new DraftException("no-text", $"{empty.FileName} has no text to draft from; a scan must be read first.");
        var (reads, readNotes) = HabitsDraft.Of(samples);
        var name = vendor?.Trim() is { Length: > 0 } given ? given : VendorDraft.Of(samples);
        var header = HeaderDraft.Of(samples, reads);
        var items = ItemsDraft.Of(samples, reads);
        var second = items is null ? null : ItemsDraft.Second(samples, reads, items);
        var ends = samples.Select((_, index) => second?.Ends[index] ?? items?.Ends[index]).ToImmutableArray();
        var stated = samples.Select((sample, index) => TotalsDraft.StatedOn(sample, ends[index], reads)).ToList();
        var totals = samples.Select((_, index) => TotalsDraft.Of(stated[index], [.. items?.Amounts[index] ?? [], .. second?.Amounts[index] ?? []], reads)).ToList();
        if (header.IsEmpty && items is null && totals.All(one => one is null))
            throw new DraftException("nothing-found", "Nothing on the samples looks like an invoice: no caption that Daxlin knows, no headings of item rows, no total.");

        var (must, recognised) = Recognition(samples, others ?? [], name, header, items?.Headings);
        var plan = DraftPlan.Of(reads with { TaxIncluded = totals.Exists(one => one is { TaxIncluded: true }) }) with
        {
            Vendor = name ?? "Unknown vendor",
            Must = must,
            CreditNote = CreditNotesFor(samples),
            Rows = items?.Rows ?? 0,
            Stand = items is null ? ItemsDraft.NotFound : null,
            Items = items?.Plan is { } found ? found with { HasRulesOfMarks = samples.Any(sample => sample.Lines.Any(line => line.Text.Length > 5 && line.Text.All(c => "-=_.*~".Contains(c, StringComparison.Ordinal)))) } : null,
        };
        plan = plan.With(TradeNames.VendorName, new JsonObject { ["where"] = new JsonObject { ["always"] = plan.Vendor } })
            .With(TradeNames.Currency, new JsonObject { ["where"] = new JsonObject { ["always"] = reads.Currency.Code } });
        var choices = new List<ImmutableArray<Func<DraftPlan, DraftPlan>>>
        {
            HeaderChoice(header, samples, TradeNames.InvoiceNumber),
            HeaderChoice(header, samples, TradeNames.InvoiceDate),
            HeaderChoice(header, samples, TradeNames.DueDate),
            HeaderChoice(header, samples, TradeNames.PurchaseOrder),
            HeaderChoice(header, samples, TradeNames.Iban),
            HeaderChoice(header, samples, TradeNames.VendorTaxId),
        };
        choices.AddRange(TotalChoices(totals, samples, reads));
        choices.Add(TaxChoices(samples, ends, totals, reads));
        if (items is not null)
            choices.AddRange(ItemChoices(items, second, totals, samples));
        if (samples.Any(sample => sample.Pages.Length > 1))
            choices.Add([plan => plan with { SkipFirst = 0 }, plan => plan with { SkipFirst = 1 }]);
        plan = DraftTrial.Best(plan, choices, samples);
        var invoices = DraftTrial.Take(plan, samples);
        return new TemplateDraft(plan.Document(), DraftNotes.Of(plan, [recognised, .. readNotes], items, invoices, name is not null), invoices);
    }

    /// <summary>The vendor whose name stands out on some pages; null if none does. Invoices of one vendor get one name by it, before there is a template.</summary>
    public static string? VendorOf(ImmutableArray<Page> pages) => VendorDraft.Of([new Sample("", pages)]);

    private static ImmutableArray<Func<DraftPlan, DraftPlan>> HeaderChoice(
        ImmutableDictionary<string, ImmutableArray<JsonObject>> header, ImmutableArray<Sample> samples, string name)
    {
        var rules = header.GetValueOrDefault(name, []);
        if (rules.IsEmpty && name is TradeNames.DueDate or TradeNames.PurchaseOrder && rules.IsEmpty)
            return [plan => plan.With(name, Unseen(name, samples))];
        return [.. rules.Select(rule => (Func<DraftPlan, DraftPlan>)(plan => plan.With(name, Tried(rule, name))))];
    }

    /// <summary>A field that the samples do not show, by its usual captions.</summary>
    private static JsonObject Unseen(string name, ImmutableArray<Sample> samples)
    {
        var captions = UnseenCaptions(name, samples).Take(MostUnseen).ToList();
        JsonArray Cue() => new([.. captions.Select(caption => (JsonNode)caption)]);
        var rule = new JsonObject
        {
            ["where"] = new JsonArray(new JsonObject { ["beside"] = Cue(), ["reach"] = 150 }, new JsonObject { ["under"] = Cue(), ["reach"] = 20 }),
            ["required"] = false,
        };
        // "Order" stands in many a sentence; what is an order's number has figures, and a word before them at most.
        if (TradeNames.KindOf(name) == ValueKind.Text)
            rule["shape"] = @"([A-Z]+ )?\S*\d\S*";
        return rule;
    }

    /// <summary>What a probe asked for besides is no part of the template: the settled names know their types.</summary>
    private static JsonObject Tried(JsonObject rule, string name)
    {
        var tried = (JsonObject)rule.DeepClone();
        tried.Remove("type");
        if (tried["where"] is JsonArray { Count: 1 } where)
            tried["where"] = where[0]!.DeepClone();
        if (name == TradeNames.DueDate)
            tried["required"] = false;
        return tried;
    }

    /// <summary>For each amount below the rows its captions: anywhere, in the part of the page where it stands, or the last of several.</summary>
    private static IEnumerable<ImmutableArray<Func<DraftPlan, DraftPlan>>> TotalChoices(
        List<FoundTotals?> totals, ImmutableArray<Sample> samples, Habits reads)
    {
        var named = totals.OfType<FoundTotals>().SelectMany(one => one.Names).ToList();
        var left = named.Count == 0 ? 0 : Math.Floor(named.Min(one => one.Stated.Box.Left)) - 4;
        foreach (var name in new[] { TradeNames.Subtotal, TradeNames.Discount, TradeNames.Freight, TradeNames.Tax, TradeNames.Total })
        {
            var found = named.Where(one => one.Name == name && !(name == TradeNames.Tax && one.Stated.HasRate)).Select(one => one.Stated.Caption).Distinct().ToList();
            var unseen = found.Count > 0 || name is not (TradeNames.Discount or TradeNames.Freight) ? [] : UnseenCaptions(name, samples).Take(MostUnseen).ToImmutableArray();
            var captions = found.Concat(unseen).ToList();
            if (captions.Count == 0)
                continue;
            var page = samples[0].Pages[^1];
            var cue = captions.Count == 1 ? HeaderDraft.CueFor(captions[0]) : new JsonArray([.. captions.Select(caption => (JsonNode)caption)]);
            var within = new JsonObject { ["left"] = left, ["top"] = 0, ["right"] = Math.Ceiling(page.Width), ["bottom"] = Math.Ceiling(page.Height) };
            JsonObject[] where =
            [
                new() { ["beside"] = cue.DeepClone() },
                new() { ["beside"] = cue.DeepClone(), ["within"] = within },
                new() { ["beside"] = cue.DeepClone(), ["occurrence"] = "last" },
                new() { ["beside"] = cue.DeepClone(), ["within"] = within.DeepClone(), ["occurrence"] = "last" },
            ];
            var rules = where.Select(one => new JsonObject { ["where"] = one }).ToList();
            // Those that find what is stated on each sample go first.
            var values = FieldProbe.Try(samples, reads, [.. rules.Select(rule => { var typed = (JsonObject)rule.DeepClone(); typed["type"] = "money"; return typed; })]);
            var hits = values.Select(of => of.Where((value, sample) => totals[sample]?.Names.FirstOrDefault(one => one.Name == name).Stated?.Amount is { } amount && value?.Number is { } number && Math.Abs(number) == Math.Abs(amount)).Count()).ToList();
            yield return [.. rules.Select((rule, index) => (rule, hits: hits[index])).OrderByDescending(one => one.hits).Where((one, index) => one.hits > 0 || found.Count == 0 || index == 0)
                .Select(one => (Func<DraftPlan, DraftPlan>)(plan =>
                {
                    var rule = (JsonObject)one.rule.DeepClone();
                    if (name != TradeNames.Total && name != TradeNames.Subtotal)
                        rule["required"] = false;
                    return plan.With(name, rule);
                }))];
        }
    }

    /// <summary>
    /// Captions of freight and discount in the samples' language: other invoices of the vendor may have what these have not.
    /// </summary>
    private static ImmutableArray<string> UnseenCaptions(string name, ImmutableArray<Sample> samples)
    {
        var language = LanguageOf(samples);
        return Vocabulary.ByLanguage[name].GetValueOrDefault(language, []);
    }

    /// <summary>So many captions of what the samples do not show; a template is to be read by a person.</summary>
    private const int MostUnseen = 12;

    /// <summary>The language whose captions stand on the samples the most.</summary>
    private static string LanguageOf(ImmutableArray<Sample> samples)
    {
        var printed = samples.SelectMany(sample => sample.Lines).SelectMany(line => Vocabulary.Fields.On(line)).Select(caption => Vocabulary.Key(caption.Text)).ToHashSet();
        return Vocabulary.ByLanguage.Values.SelectMany(names => names).GroupBy(language => language.Key)
            .MaxBy(language => language.SelectMany(one => one.Value).Select(Vocabulary.Key).Distinct().Count(printed.Contains))!.Key;
    }

    private static ImmutableArray<Func<DraftPlan, DraftPlan>> TaxChoices(ImmutableArray<Sample> samples, ImmutableArray<PlaceOnPage?> ends, List<FoundTotals?> totals, Habits reads)
    {
        var taxes = totals.OfType<FoundTotals>().SelectMany(one => one.Names).Where(one => one.Name == TradeNames.Tax).Select(one => one.Stated).ToImmutableArray();
        IEnumerable<JsonObject?> blocks = TaxesDraft.Of(samples, ends, taxes, reads);
        return [.. from block in blocks.Append(null)
                   from included in new[] { false, true }
                   select (Func<DraftPlan, DraftPlan>)(plan => plan with { Taxes = block, Reads = plan.Reads with { TaxIncluded = included } })];
    }

    private static IEnumerable<ImmutableArray<Func<DraftPlan, DraftPlan>>> ItemChoices(
        FoundItems items, FoundItems? second, List<FoundTotals?> totals, ImmutableArray<Sample> samples)
    {
        var captions = totals.OfType<FoundTotals>().SelectMany(one => one.Names).ToList();
        var closes = captions.OrderBy(one => one.Stated.Page).ThenBy(one => one.Stated.Box.Top).Where(one => one.Name is TradeNames.Subtotal or TradeNames.Total)
            .Select(one => one.Stated.Caption).Distinct().ToImmutableArray();
        var first = captions.OrderBy(one => one.Stated.Page).ThenBy(one => one.Stated.Box.Top).Select(one => one.Stated.Caption).Take(1).ToImmutableArray();
        var fromFirst = first.AddRange(closes.Except(first));
        ImmutableArray<ImmutableArray<string>> ways = [closes, fromFirst, closes[..Math.Min(1, closes.Length)], ImmutableArray<string>.Empty];
        yield return [.. ways
            .Select(cues => (Func<DraftPlan, DraftPlan>)(plan => plan with { Items = plan.Items! with { Closes = cues } })),
            .. ways.Take(1).Select(cues => (Func<DraftPlan, DraftPlan>)(plan => ClosedByWhatFollows(plan with { Items = plan.Items! with { Closes = cues } }, samples)))];
        if (second is not null)
            yield return [plan => plan with { Second = null }, plan => WithSecond(plan, second)];
        yield return [.. RowsUnderDraft.Options(samples), plan => plan with { Items = plan.Items! with { RowsUnder = null } }];
        var sections = items.Plan.Columns.Where(column => column.Rule["heading"] is not null).Take(3).Select(column => column.Name).ToList();
        // Headings that stand apart go before text that wraps; headings that might be such text go behind it.
        (string Fold, SectionDraft.Kind Section)[] folds =
        [
            ("down", SectionDraft.Kind.None), ("down", SectionDraft.Kind.Apart), ("around", SectionDraft.Kind.Apart), ("up", SectionDraft.Kind.Apart),
            ("around", SectionDraft.Kind.None), ("up", SectionDraft.Kind.None),
            ("down", SectionDraft.Kind.Few), ("around", SectionDraft.Kind.Few), ("up", SectionDraft.Kind.Few),
            ("allDown", SectionDraft.Kind.None), ("", SectionDraft.Kind.None),
        ];
        yield return [.. from way in folds
                         from section in way.Section == SectionDraft.Kind.None ? (IEnumerable<string?>)[null] : sections
                         select (Func<DraftPlan, DraftPlan>)(plan =>
                         {
                             var other = plan with { Items = plan.Items! with { Fold = way.Fold, Section = section } };
                             return section is null || SectionDraft.Are(way.Section, other, samples) ? other : plan;
                         })];
        var begins = new List<JsonObject>();
        foreach (var column in new[] { TradeNames.Amount, TradeNames.Quantity, TradeNames.UnitPrice, "position", TradeNames.ItemCode })
        {
            if (!items.Plan.Columns.Any(one => one.Name == column && one.Rule["partOf"] is null))
                continue;
            var rule = ItemsDraft.Filled(column);
            if (column == "position")
                rule["matching"] = @"^\d+\.?$";
            begins.Add(rule);
        }
        begins.Add(new JsonObject { ["ruling"] = true });
        yield return [.. begins.Select(one => (Func<DraftPlan, DraftPlan>)(plan => plan with { Items = plan.Items! with { Begins = one } }))];
        yield return [plan => plan with { Items = plan.Items! with { CodeFolds = false } }, plan => plan with { Items = plan.Items! with { CodeFolds = true } }];
        if (!items.Plan.Columns.Any(column => column.Name == TradeNames.Unit) && items.Plan.Columns.Any(column => column.Name == TradeNames.Quantity))
            yield return [plan => plan, WithUnitGlued];
    }

    /// <summary>Closed as well by the words that stand right below the rows and are none: a note, the headings of the tax summary.</summary>
    private static DraftPlan ClosedByWhatFollows(DraftPlan plan, ImmutableArray<Sample> samples)
    {
        var cues = new List<string>();
        foreach (var invoice in DraftTrial.Take(plan, samples))
        {
            if (invoice.Captured.Lines is not [.., var last] || last.Cells.SelectMany(cell => cell.Trace.Places).ToList() is not { Count: > 0 } places)
                continue;
            var (page, bottom) = (places.Max(place => place.Page), places.Max(place => place.Box.Bottom));
            var follows = invoice.Captured.LeftOut.FirstOrDefault(line => line.Why == LeftOutLine.NotAccountedFor && line.Place.Page >= page && line.Place.Box.Top > bottom - 1);
            if (follows is not null && LeadingWords().Match(follows.Text).Value.Trim() is { Length: >= 5 } cue)
                cues.Add(cue);
        }
        return plan with { Items = plan.Items! with { Closes = [.. plan.Items.Closes, .. cues.Distinct().Except(plan.Items.Closes)] } };
    }

    /// <summary>The first block ends where the second one's title or headings stand.</summary>
    private static DraftPlan WithSecond(DraftPlan plan, FoundItems second)
    {
        var lines = second.Headings.Page.Lines;
        var title = lines.LastOrDefault(line => line.Box.Bottom < second.Headings.Box.Top && second.Headings.Box.Top - line.Box.Bottom < 25 && !line.Text.Any(char.IsAsciiDigit));
        var cue = title?.Text ?? second.Headings.All[0].Text;
        return plan with
        {
            Items = plan.Items! with { Closes = [cue, .. plan.Items.Closes] },
            Second = second.Plan with { Closes = plan.Items.Closes, Fold = plan.Items.Fold },
        };
    }

    private static DraftPlan WithUnitGlued(DraftPlan plan)
    {
        var columns = plan.Items!.Columns.Select(column =>
        {
            if (column.Name != TradeNames.Quantity || column.Rule["tidy"] is not null)
                return column;
            var rule = (JsonObject)column.Rule.DeepClone();
            rule["tidy"] = new JsonArray(new JsonObject { ["splitUnit"] = TradeNames.Unit });
            return column with { Rule = rule };
        });
        return plan with { Items = plan.Items with { Columns = [.. columns] } };
    }

    /// <summary>Cues that stand on every sample and, together, on no invoice of another vendor.</summary>
    private static (ImmutableArray<JsonNode> Must, DraftNote Note) Recognition(
        ImmutableArray<Sample> samples, IReadOnlyCollection<Sample> others, string? name, ImmutableDictionary<string, ImmutableArray<JsonObject>> header, Headings? headings)
    {
        var cues = RecognisingTexts(samples, name, header, headings).Where(text => samples.All(sample => IsOn(text, sample))).Distinct().ToList();
        if (cues.Count == 0)
            cues.Add(samples[0].Lines.First().Text);
        // The fewest cues that keep the others out; each is a risk that the vendor changes it.
        var must = new List<string> { cues[0] };
        foreach (var cue in cues.Skip(1))
        {
            var taken = Count(must);
            if (taken == 0)
                break;
            if (Count([.. must, cue]) < taken)
                must.Add(cue);
        }
        var wrong = Count(must);
        var says = string.Join(" and ", must.Select(text => $"“{text}”")) + (others.Count == 0 ? "; there are no invoices of other vendors to hold it against"
            : wrong == 0 ? $"; on none of {others.Count} invoices of other vendors" : $"; on {wrong} of {others.Count} invoices of other vendors, too");
        return ([.. must.Select(text => (JsonNode)text)], new DraftNote("recognise", others.Count > 0 && wrong == 0 ? Certainty.Certain : Certainty.Guess, says));

        int Count(IReadOnlyCollection<string> texts) => others.Count(other => texts.All(text => IsOn(text, other)));
    }

    private static bool IsOn(string text, Sample sample) => sample.Pages.Any(page => new Cue([text]).IsOn(page));

    /// <summary>The vendor's name; the account and the tax number, which no other vendor has; the headings of the rows.</summary>
    private static IEnumerable<string> RecognisingTexts(
        ImmutableArray<Sample> samples, string? name, ImmutableDictionary<string, ImmutableArray<JsonObject>> header, Headings? headings)
    {
        if (name is not null)
            yield return name;
        foreach (var field in new[] { TradeNames.VendorTaxId, TradeNames.Iban })
        {
            if (header.GetValueOrDefault(field, []) is [var rule, ..] && FieldProbe.Try(samples, FormOnly, [rule])[0].OfType<CapturedValue>().Select(value => value.Value).Distinct().ToList() is [var only])
                yield return only;
        }
        // A name that was said and is drawn as a picture: what stands out on the page.
        if (VendorDraft.Of(samples) is { } printed)
            yield return printed;
        foreach (var heading in headings?.All.OrderByDescending(one => one.Text.Length) ?? Enumerable.Empty<Heading>())
            yield return heading.Text;
    }

    private static readonly Habits FormOnly = new(Currency.Find("EUR")!, DateOrder.DayFirst, '.', ",");

    [GeneratedRegex(@"^[^\d:|]+")]
    private static partial Regex LeadingWords();

    /// <summary>What a credit note of the vendor calls itself, in the language of its invoices.</summary>
    private static ImmutableArray<string> CreditNotesFor(ImmutableArray<Sample> samples)
    {
        var text = string.Join('\n', samples.SelectMany(sample => sample.Lines).Select(line => line.Text));
        foreach (var (invoice, creditNotes) in Vocabulary.CreditNotes)
        {
            if (Regex.IsMatch(text, $@"\b{invoice}", RegexOptions.IgnoreCase))
                return creditNotes;
        }
        return [];
    }
}
