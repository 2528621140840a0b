using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Puts what persons said of an invoice over what was captured, and weighs all ties anew.</summary>
/// <remarks>
/// Captured values stay as they are, so an invoice that is captured again takes the same corrections over its new values. One
/// whose row is not there any more is a finding, never dropped.
/// </remarks>
public sealed class InvoiceCorrections
{
    private readonly CapturedInvoice captured;
    private readonly Template template;
    private ImmutableArray<CapturedValue> fields;
    private readonly Dictionary<string, List<(RowAddress Address, CapturedLine Line)>> lists = [];
    private readonly Dictionary<string, EnteredValue> entered = [];
    private readonly HashSet<string> settled = [];
    private readonly List<StruckRow> struck = [];
    private readonly List<(int Id, FindingAccepted What)> accepted = [];
    private readonly List<Finding> found = [];
    private readonly Dictionary<RowAddress, CodedByHand?> coded = [];
    private bool? isCreditNote;

    private InvoiceCorrections(CapturedInvoice captured)
    {
        (this.captured, template) = (captured, captured.Template);
        fields = captured.Fields;
        AddList(BlockRule.Lines, captured.Lines);
        AddList(BlockRule.Taxes, captured.Taxes);
        foreach (var block in captured.Others.GroupBy(line => line.Block))
            AddList(block.Key, block);
    }

    public static CorrectedInvoice Apply(CapturedInvoice captured, IEnumerable<RecordedCorrection> corrections)
    {
        var invoice = new InvoiceCorrections(captured);
        foreach (var (id, what) in corrections)
            invoice.Take(id, what);
        return invoice.Result();
    }

    private void AddList(string list, IEnumerable<CapturedLine> lines) =>
        lists[list] = [.. lines.Select(line => (RowAddress.Of(list, line), line))];

    private void Take(int id, Correction what)
    {
        switch (what)
        {
            case ValueEntered { Of.Row: null } value:
                EnterField(id, value);
                break;
            case ValueEntered value:
                EnterCell(id, value);
                break;
            case RowStruck { Row: var row }:
                if (Find(row) is var (list, at))
                    Strike(id, list, at);
                else
                    Lose("the row was struck out", row);
                break;
            case RowAdded row:
                Add(id, row);
                break;
            case RowsJoined join:
                Join(id, join);
                break;
            case RowSplit split:
                Split(id, split);
                break;
            case RowMoved move:
                Move(move);
                break;
            case KindSaid said:
                isCreditNote = said.IsCreditNote;
                settled.Add(KindName);
                break;
            case FindingAccepted finding:
                accepted.Add((id, finding));
                break;
            case LineCoded line:
                Code(id, line);
                break;
        }
    }

    private void EnterField(int id, ValueEntered value)
    {
        var (name, own) = (value.Of.Name, captured.Find(value.Of.Name));
        entered[name] = new EnteredValue(id, own);
        settled.Add(name);
        Differ(name, value, own);
        fields = fields.With(name, ValueOf(value, fields.FirstOrDefault(field => field.Name == name), KindsOfValues.OfField(template, name)));
    }

    private void EnterCell(int id, ValueEntered value)
    {
        if (Find(value.Of.Row!) is not var (list, at)
            || (ValueNames.ParseUnder(value.Of.Name) is var (under, number, _) && lists[list][at].Line.RowUnder(under, number) is null))
        {
            Lose($"“{value.Raw}” was entered for the {ValueNames.SpokenColumn(value.Of.Name)}", value.Of.Row!);
            return;
        }
        var (address, line) = lists[list][at];
        var name = ValueNames.Of(list, line.Number, value.Of.Name);
        var own = address.AddedBy > 0 ? null : captured.Row(list, line.Number)?.Find(value.Of.Name);
        entered[name] = new EnteredValue(id, own);
        settled.Add(name);
        if (address.AddedBy == 0)
            Differ(name, value, own);
        lists[list][at] = (address, line.With(value.Of.Name, ValueOf(value, line.Find(value.Of.Name), KindsOfValues.OfColumn(template, line.Block, value.Of.Name))));
    }

    /// <summary>The value that was entered in the place of another; null if there is to be none.</summary>
    private static CapturedValue? ValueOf(ValueEntered entered, CapturedValue? before, ValueKind kind)
    {
        if (entered.Value.Length == 0)
            return null;
        // What is typed over a captured value stands where that is printed.
        var places = entered.Place is { } place ? [place] : before?.Trace.Places ?? [];
        return KindsOfValues.ValueOf(entered.Of.Name, kind, entered.Value, new Trace(places, entered.Place is null ? Typed : PointedAt, entered.Raw, 1));
    }

    /// <summary>What a person entered stays, whatever is captured later; where that is something new, both are told.</summary>
    private void Differ(string name, ValueEntered value, CapturedValue? now)
    {
        if ((now?.Value ?? "") is var newest && newest != value.Was && newest != value.Value)
        {
            found.Add(new Finding(
                "entered-differs", Severity.Note,
                $"{ValueNames.Spoken(name)}: {Quoted(value.Value)} was entered where {Quoted(value.Was)} was captured; the newest capture says {Quoted(newest)}.", [name]));
        }
    }

    private static string Quoted(string text) => text.Length == 0 ? "nothing" : $"“{text}”";

    private void Strike(int id, string list, int at)
    {
        var (_, line) = lists[list][at];
        lists[list].RemoveAt(at);
        struck.Add(new StruckRow(id, list, line));
        settled.UnionWith(NamesOf(list, line));
    }

    private IEnumerable<string> NamesOf(string list, CapturedLine line) =>
        line.Cells.Select(cell => cell.Name)
            .Concat(template.Blocks.FirstOrDefault(block => block.Name == line.Block)?.Columns.Select(column => column.Name) ?? [])
            .Select(column => ValueNames.Of(list, line.Number, column));

    private void Add(int id, RowAdded row)
    {
        var rows = lists.TryGetValue(row.List, out var known) ? known : lists[row.List] = [];
        Insert(id, row.List, row.Block, row.Cells, _ => [], PlaceAfter(row.After, rows));
    }

    /// <param name="placesOf">Where a column's value is printed, if that is known.</param>
    private void Insert(int id, string list, string block, ImmutableSortedDictionary<string, string> values, Func<string, ImmutableArray<PlaceOnPage>> placesOf, int at)
    {
        var captures = captured.RowsOf(list).Select(line => line.Number).DefaultIfEmpty(0).Max();
        var number = Math.Max(captures, lists[list].Select(one => one.Line.Number).DefaultIfEmpty(0).Max()) + 1;
        var line = new CapturedLine(
            block, number,
            [.. values.Select(cell => KindsOfValues.ValueOf(
                cell.Key, KindsOfValues.OfColumn(template, block, cell.Key), cell.Value, new Trace(placesOf(cell.Key), Typed, cell.Value, 1)))]);
        foreach (var cell in line.Cells)
        {
            var name = ValueNames.Of(list, number, cell.Name);
            entered[name] = new EnteredValue(id, null);
            settled.Add(name);
        }
        lists[list].Insert(at, (new RowAddress(list, 0, null, id), line));
    }

    private void Split(int id, RowSplit split)
    {
        if (Find(split.Row) is not var (list, at))
        {
            Lose("the row was divided", split.Row);
            return;
        }
        var (address, whole) = lists[list][at];
        var upper = whole;
        foreach (var (column, text) in split.Below)
        {
            if (whole.Find(column) is not { Kind: ValueKind.Text } value || RowSplit.RestOf(value.Value, text) is not { } rest)
                continue;
            upper = upper.With(column, rest.Length == 0 ? null : value with { Value = rest });
            entered[ValueNames.Of(list, whole.Number, column)] = new EnteredValue(id, value);
            settled.Add(ValueNames.Of(list, whole.Number, column));
        }
        lists[list][at] = (address, upper);
        Insert(id, list, whole.Block, split.Below, column => upper.Find(column)?.Value != whole.Find(column)?.Value ? whole.Find(column)!.Trace.Places : [], at + 1);
    }

    private int PlaceAfter(RowAddress? after, List<(RowAddress Address, CapturedLine Line)> rows)
    {
        if (after is null)
            return 0;
        // Below a row that is not there any more: last.
        return Find(after) is var (list, at) && ReferenceEquals(lists[list], rows) ? at + 1 : rows.Count;
    }

    private void Join(int id, RowsJoined join)
    {
        if (Find(join.First) is not var (list, at) || Find(join.Second) is not var (second, below) || list != second || at == below)
        {
            Lose("two rows were joined", join.Second);
            return;
        }
        var (address, line) = lists[list][at];
        var other = lists[list][below].Line;
        var cells = line.Cells.ToList();
        foreach (var cell in other.Cells)
        {
            var own = cells.FindIndex(one => one.Name == cell.Name);
            if (own < 0)
                cells.Add(cell);
            else if (cell.Kind == ValueKind.Text && cells[own].Value != cell.Value && cell.Name != TradeNames.Section)
                cells[own] = Together(cells[own], cell);
            entered[ValueNames.Of(list, line.Number, cell.Name)] = new EnteredValue(id, line.Find(cell.Name));
        }
        lists[list][at] = (address, line with { Cells = [.. cells], Under = line.Under.AddRange(other.Under) });
        struck.Add(new StruckRow(id, list, other));
        settled.UnionWith(NamesOf(list, other));
        lists[list].RemoveAt(below);
    }

    private static CapturedValue Together(CapturedValue first, CapturedValue second) => first with
    {
        Value = first.Value + " " + second.Value,
        Trace = first.Trace with { Places = first.Trace.Places.AddRange(second.Trace.Places), Raw = first.Trace.Raw + " " + second.Trace.Raw },
    };

    private void Move(RowMoved move)
    {
        if (Find(move.Row) is not var (list, at))
        {
            Lose("the row was moved", move.Row);
            return;
        }
        var row = lists[list][at];
        lists[list].RemoveAt(at);
        lists[list].Insert(PlaceAfter(move.After, lists[list]), row);
    }

    private void Code(int id, LineCoded said)
    {
        if (said.Row is null || Find(said.Row) is not null)
            coded[said.Row ?? Whole] = said.Coding is null ? null : new CodedByHand(id, said.Coding);
        else if (said.Coding is not null)
            Lose("a code was given", said.Row);
    }

    /// <summary>The codes of rows that are there still, by the numbers that they have now.</summary>
    private ImmutableSortedDictionary<int, CodedByHand> Coded()
    {
        var byLine = ImmutableSortedDictionary.CreateBuilder<int, CodedByHand>();
        foreach (var (row, said) in coded)
        {
            if (said is null)
                continue;
            if (row == Whole)
                byLine[0] = said;
            else if (Find(row) is ({ } list, var at))
                byLine[lists[list][at].Line.Number] = said;
        }
        return byLine.ToImmutable();
    }

    private static readonly RowAddress Whole = new(BlockRule.Lines, 0, null);

    private (string List, int At)? Find(RowAddress address)
    {
        if (!lists.TryGetValue(address.List, out var rows))
            return null;
        var at = address.AddedBy > 0 ? rows.FindIndex(row => row.Address.AddedBy == address.AddedBy)
            : address.Anchor is null ? rows.FindIndex(row => row.Address is { AddedBy: 0, Anchor: null } && row.Address.Number == address.Number)
            : rows.FindIndex(row => row.Address.IsAt(address));
        return at < 0 ? null : (address.List, at);
    }

    private void Lose(string what, RowAddress row) => found.Add(Finding.Hold(
        "correction-lost",
        $"{Capital(what)} in row {row.Number.ToString(CultureInfo.InvariantCulture)} of {row.List}; the newest capture has no such row. Look at it, and accept this when it is right.",
        row.List));

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private CorrectedInvoice Result()
    {
        var corrected = captured with
        {
            IsCreditNote = isCreditNote ?? captured.IsCreditNote,
            Fields = fields,
            Lines = LinesOf(BlockRule.Lines),
            Taxes = LinesOf(BlockRule.Taxes),
            Others = [.. lists.Where(list => list.Key is not (BlockRule.Lines or BlockRule.Taxes)).SelectMany(list => LinesOf(list.Key))],
        };
        corrected = corrected with
        {
            Sums = new SumsOfRows(captured).Anew(corrected),
            Findings = [.. captured.Findings.Where(finding => !IsSettled(finding, corrected)), .. found, .. Incomplete(), .. KindDoubt(corrected)],
        };
        var weighed = InvoiceChecks.Check(corrected);
        var open = weighed.Findings.Where(finding => finding.Code != "amount-untied" || !finding.About.All(settled.Contains)).ToList();
        var passed = new List<AcceptedFinding>();
        foreach (var (id, what) in accepted)
        {
            if (open.FindIndex(finding => finding.Code == what.Code && finding.Message == what.Message && weighed.PassingOf(finding) != Passing.Never) is >= 0 and var at)
            {
                passed.Add(new AcceptedFinding(id, open[at], what.Reason));
                open.RemoveAt(at);
            }
        }
        return new CorrectedInvoice(
            captured, weighed with { Findings = [.. open] }, entered.ToImmutableSortedDictionary(StringComparer.Ordinal), [.. struck], [.. passed],
            lists.SelectMany(list => list.Value.Select(row => KeyValuePair.Create((list.Key, row.Line.Number), row.Address))).ToImmutableDictionary())
        {
            Coded = Coded(),
        };
    }

    /// <summary>What a row that a person made lacks, as a captured one would be told to lack it.</summary>
    private IEnumerable<Finding> Incomplete() =>
        from list in lists
        from row in list.Value
        where row.Address.AddedBy > 0
        from column in template.Blocks.FirstOrDefault(block => block.Name == row.Line.Block)?.Columns ?? []
        where column.Required && row.Line.Find(column.Name) is null
        select Finding.Hold(
            "value-missing", $"Row {row.Line.Number.ToString(CultureInfo.InvariantCulture)}, which a person added, has no {TradeNames.Spoken(column.Name)}.",
            ValueNames.Of(list.Key, row.Line.Number, column.Name));

    private ImmutableArray<CapturedLine> LinesOf(string list) => [.. lists[list].Select(row => row.Line)];

    /// <summary>A doubt about values that a person has entered, or about rows that are none, is none any more.</summary>
    private bool IsSettled(Finding finding, CapturedInvoice corrected) => finding.Code switch
    {
        "no-rows" => !corrected.Lines.IsEmpty && finding.About is [BlockRule.Lines],
        _ => finding.About.Length > 0 && finding.About.All(settled.Contains),
    };

    /// <summary>A total that changed its sign may make an invoice of a credit note; only a person can say so.</summary>
    private IEnumerable<Finding> KindDoubt(CapturedInvoice corrected)
    {
        var (before, after) = (captured.Amount(TradeNames.Total) ?? 0, corrected.Amount(TradeNames.Total) ?? 0);
        if (isCreditNote is null && ((before < 0 && after > 0) || (after < 0 && before >= 0)))
        {
            yield return Finding.Hold(
                "kind-doubtful",
                $"The total was captured as {template.Reads.Currency.Show(before)} and is {template.Reads.Currency.Show(after)} now: say whether this is an invoice or a credit note. "
                + $"It is taken for {(corrected.IsCreditNote ? "a credit note" : "an invoice")}.",
                KindName);
        }
    }

    /// <summary>What a finding about the kind of the invoice is about.</summary>
    private const string KindName = "kind";

    private const string Typed = "typed by a person";

    private const string PointedAt = "pointed at by a person";
}
