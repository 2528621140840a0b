using System.Collections.Immutable;
using System.Text.RegularExpressions;
using CsCheck;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>What a person says of an invoice stands over what was captured, whatever the invoice.</summary>
public class CorrectionPropertyTests
{
    private static readonly int Times = Effort.Times(200);

    private static CapturedInvoice Capture(ImmutableArray<Page> pages) => InvoiceCapture.Capture(pages, MadeUpInvoice.Template);

    private static CorrectedInvoice Corrected(CapturedInvoice invoice, params Correction[] corrections) =>
        InvoiceCorrections.Apply(invoice, corrections.Select((one, at) => new RecordedCorrection(at + 1, one)));

    /// <summary>An invoice with one amount printed wrong: of a row, or the subtotal, or what stands below it.</summary>
    private static readonly Gen<(MadeUpInvoice Right, ImmutableArray<Page> Pages)> OneWrong = MadeUpInvoice.Gen
        .SelectMany(invoice => Gen.Select(Gen.Const(invoice), Gen.Int[0, invoice.PrintedAmounts.Length - 1], Gen.Int[0, 20], Gen.Int[1, 9]))
        .Select((invoice, which, place, by) =>
            (invoice, invoice.Set(invoice.PrintedAmounts.SetItem(which, CapturePropertyTests.WithOtherFigure(invoice.PrintedAmounts[which], place, by))).Pages()));

    [Fact]
    public void Nothing_said_changes_nothing() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var captured = Capture(invoice.Set().Pages());
            var corrected = Corrected(captured);
            Assert.Equal(InvoiceChecks.Check(captured).Findings, corrected.Checked.Findings);
            Assert.Equal(captured.Lines.Length, corrected.Rows.Count(row => row.Key.List == BlockRule.Lines));
            Assert.Empty(corrected.Entered);
        },
        iter: Math.Max(2, Times / 4));

    [Fact]
    public void The_right_figure_entered_for_a_wrong_one_makes_the_invoice_clear_and_the_captured_one_stays_known() => OneWrong.Sample(
        (invoice, pages) =>
        {
            var captured = Capture(pages);
            var before = Corrected(captured);
            Assert.False(before.Checked.IsClear);
            var right = InvoiceChecks.Check(Capture(invoice.Set().Pages())).Captured;
            var (address, value) = Assert.Single(Differences(before, right));
            var after = Corrected(captured, new ValueEntered(address, value.Value, "", value.Value, null));
            Assert.True(after.Checked.IsClear, string.Join(' ', after.Checked.Findings.Select(finding => finding.Message)));
            var entered = Assert.Single(after.Entered);
            Assert.NotEqual(value.Value, entered.Value.Captured!.Value);
            // What was captured is never touched.
            Assert.Same(captured, after.Captured);
        },
        iter: Times);

    [Fact]
    public void The_right_figure_is_among_what_is_proposed_and_every_proposal_keeps_its_word() => OneWrong.Sample(
        (invoice, pages) =>
        {
            var before = Corrected(Capture(pages));
            var right = Capture(invoice.Set().Pages());
            var (address, value) = Assert.Single(Differences(before, right));
            var proposals = Proposals.Of(before, PrintedLine.Of(pages));
            Assert.Contains(proposals, one => one.Value is { } text && Last(one.Of) == value.Name && SettledForm.Number(text) == value.Number);
            foreach (var proposal in proposals.Where(one => one is { Value: not null, SettlesAll: true }))
            {
                var row = before.Rows.GetValueOrDefault((BlockRule.Lines, RowOf(proposal.Of)));
                var rule = proposal.Of.StartsWith(BlockRule.Taxes, StringComparison.Ordinal) ? before.Rows[(BlockRule.Taxes, RowOf(proposal.Of))] : row;
                var after = Corrected(before.Captured, new ValueEntered(new ValueAddress(proposal.Of.Contains('[') ? rule : null, Last(proposal.Of)), proposal.Value!, "", proposal.Value!, null));
                Assert.All(after.Checked.Ties, tie => Assert.True(tie.Holds, proposal.Says));
            }
        },
        iter: Times);

    [Fact]
    public void A_total_that_cannot_be_read_is_worked_out_from_what_it_must_tie_with() => MadeUpInvoice.Gen.Sample(
        invoice =>
        {
            var amounts = invoice.PrintedAmounts;
            var pages = invoice.Set(amounts.SetItem(amounts.Length - 1, amounts[^1] + "x7")).Pages();
            var before = Corrected(Capture(pages));
            Assert.Contains(before.Checked.Findings, finding => finding.Code is "value-missing" or "value-unreadable" && finding.About is [TradeNames.Total]);
            // Nobody lets an invoice without a total pass.
            var passes = before.Checked.Findings.Select(finding => (Correction)new FindingAccepted(finding.Code, finding.Message, "It is all right")).ToArray();
            Assert.False(Corrected(before.Captured, passes).Checked.IsClear);
            Assert.Contains(Proposals.Of(before, PrintedLine.Of(pages)), one => one.Of == TradeNames.Total && SettledForm.Number(one.Value!) == invoice.Total);
        },
        iter: Math.Max(2, Times / 2));

    [Fact]
    public void A_row_that_the_template_leaves_out_is_proposed_as_a_row() => Gen.Select(MadeUpInvoice.Gen.Where(invoice => invoice.Rows.Length > 1), Gen.Int[0, 1000]).Sample(
        (invoice, which) =>
        {
            var row = invoice.Rows[which % invoice.Rows.Length];
            var template = MadeUpInvoice.Template with
            {
                Blocks = [.. MadeUpInvoice.Template.Blocks.Select(block => block.HoldsItems
                    ? block with { LeaveOut = block.LeaveOut.Add(new Regex($@"^{Regex.Escape(row.Code)}\b", RegexOptions.NonBacktracking)) } : block)],
            };
            var pages = invoice.Set().Pages();
            var before = InvoiceCorrections.Apply(InvoiceCapture.Capture(pages, template), []);
            // Another row may have the same code, and then two are missing.
            if (before.Checked.Captured.Lines.Length != invoice.Rows.Length - 1 || before.Checked.Captured.LeftOut.Length == 0)
                return;
            var proposal = Assert.Single(Proposals.Of(before, PrintedLine.Of(pages)), one => one.Cells.Count > 0);
            Assert.Equal(row.Amount, SettledForm.Number(proposal.Cells[TradeNames.Amount]));
            var after = before.Rows.GetValueOrDefault((BlockRule.Lines, RowOf(proposal.Of)));
            Assert.All(
                Corrected(before.Captured, new RowAdded(BlockRule.Lines, "goods", after, proposal.Cells)).Checked.Ties, tie => Assert.True(tie.Holds, tie.Equation));
        },
        iter: Math.Max(2, Times / 2));

    [Fact]
    public void Taking_back_and_making_again_are_steps_in_a_row_of_steps() => Gen.Int[0, 3].Array[0, 40].Sample(acts =>
    {
        // The simplest thing that can undo: what holds, and what can be made again.
        var (holds, undone) = (new Stack<int>(), new Stack<int>());
        var made = new List<MadeCorrection>();
        foreach (var act in acts)
        {
            var history = new CorrectionHistory(made);
            Assert.Equal((holds.Count > 0, undone.Count > 0), (history.ToUndo is not null, history.ToRedo is not null));
            if (act is 0 or 3)
            {
                made.Add(new MadeCorrection(made.Count + 1, new KindSaid(false)));
                holds.Push(made.Count);
                undone.Clear();
            }
            else if ((act == 1 ? history.ToUndo : history.ToRedo) is { } end)
            {
                made.Add(new MadeCorrection(made.Count + 1, null, end));
                var (from, to) = act == 1 ? (holds, undone) : (undone, holds);
                to.Push(from.Pop());
            }
            Assert.Equal(holds.Reverse(), new CorrectionHistory(made).Holding.Select(one => one.Id));
        }
        // Nothing is taken back twice by two rows.
        Assert.Equal(made.Count(one => one.Undoes is not null), made.Select(one => one.Undoes).OfType<int>().Distinct().Count());
    });

    [Theory]
    [InlineData("total", null, 0, "total")]
    [InlineData("lines[3].amount", "lines", 3, "amount")]
    [InlineData("spare-parts[12]", "spare-parts", 12, null)]
    [InlineData("lines[3].deliveries[1].quantity", "lines", 3, "deliveries[1].quantity")]
    public void A_name_is_taken_apart(string name, string? list, int row, string? column) => Assert.Equal((list, row, column), ValueNames.Parse(name));

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    [InlineData("lines[]")]
    [InlineData("lines[3].")]
    [InlineData("lines[3].deliveries[1]")]
    [InlineData("lines[3].deliveries[1].at[2].quantity")]
    [InlineData("lines[99999999].amount")]
    public void What_is_no_name_of_a_value_or_row_is_none(string? name) => Assert.Null(ValueNames.Parse(name));

    [Fact]
    public void A_row_struck_out_and_added_again_comes_to_the_same() => Gen.Select(MadeUpInvoice.Gen, Gen.Int[0, 1000]).Sample(
        (invoice, which) =>
        {
            var captured = Capture(invoice.Set().Pages());
            var line = captured.Lines[which % captured.Lines.Length];
            var address = RowAddress.Of(BlockRule.Lines, line);
            var struck = Corrected(captured, new RowStruck(address));
            Assert.False(struck.Checked.IsClear);
            Assert.Equal(line, Assert.Single(struck.Struck).Line);
            var again = Corrected(
                captured, new RowStruck(address),
                new RowAdded(BlockRule.Lines, line.Block, null, line.Cells.ToImmutableSortedDictionary(cell => cell.Name, cell => cell.Value, StringComparer.Ordinal)));
            Assert.True(again.Checked.IsClear, string.Join(' ', again.Checked.Findings.Select(finding => finding.Message)));
            Assert.Equal(captured.Lines.Length, again.Checked.Captured.Lines.Length);
            // A row of a person's that lacks what a captured one must have is told so.
            foreach (var column in new[] { TradeNames.Description, TradeNames.Quantity, TradeNames.UnitPrice, TradeNames.Amount })
            {
                var less = Corrected(
                    captured, new RowStruck(address),
                    new RowAdded(BlockRule.Lines, line.Block, null, line.Cells.Where(cell => cell.Name != column).ToImmutableSortedDictionary(cell => cell.Name, cell => cell.Value, StringComparer.Ordinal)));
                Assert.Contains(less.Checked.Findings, finding => finding.Code == "value-missing" && finding.Message.EndsWith($"which a person added, has no {TradeNames.Spoken(column)}.", StringComparison.Ordinal));
            }
        },
        iter: Times);

    [Fact]
    public void Two_rows_captured_as_one_are_divided_into_what_they_were() => Gen.Select(MadeUpInvoice.Gen.Where(invoice => invoice.Rows.Length > 1), Gen.Int[0, 1000]).Sample(
        (invoice, which) =>
        {
            var captured = Capture(invoice.Set().Pages());
            var at = which % (captured.Lines.Length - 1);
            var (first, second) = (captured.Lines[at], captured.Lines[at + 1]);
            var (above, below) = (RowAddress.Of(BlockRule.Lines, first), RowAddress.Of(BlockRule.Lines, second));
            // A text that both have stands once on the two joined, and nothing says where it is to be cut.
            if (first.Cells.Any(cell => cell.Kind == ValueKind.Text && second.Find(cell.Name)?.Value == cell.Value))
                return;
            var join = new RowsJoined(above, below);
            var joined = Corrected(captured, join);
            var cells = second.Cells.ToImmutableSortedDictionary(cell => cell.Name, cell => cell.Value, StringComparer.Ordinal);
            var (split, fault) = CorrectionReader.Read(
                new WantedCorrection("split", ValueNames.Row(BlockRule.Lines, first.Number), null, null, null, null, null, null, cells, null, null, null), joined, []);
            Assert.True(fault is null, fault?.Sentence);
            var after = Corrected(captured, join, split!);
            Assert.Equal(
                captured.Lines.Select(line => string.Join('|', line.Cells.Select(cell => $"{cell.Name}={cell.Value}").Order())),
                after.Checked.Captured.Lines.Select(line => string.Join('|', line.Cells.Select(cell => $"{cell.Name}={cell.Value}").Order())));
            Assert.True(after.Checked.IsClear, string.Join(' ', after.Checked.Findings.Select(finding => finding.Message)));
            // What is cut off the text above stands where that is printed.
            Assert.Contains(after.Checked.Captured.Lines[at + 1].Find(TradeNames.Description)!.Trace.Places, place => second.Find(TradeNames.Description)!.Trace.Places.Contains(place));
        },
        iter: Times);

    [Fact]
    public void Corrections_find_their_rows_again_on_a_page_that_another_template_reads() => Gen.Select(MadeUpInvoice.Gen.Where(invoice => invoice.Rows.Length > 1), Gen.Int[1, 1000]).Sample(
        (invoice, which) =>
        {
            var captured = Capture(invoice.Set().Pages());
            var line = captured.Lines[1 + which % (captured.Lines.Length - 1)];
            var said = new ValueEntered(new ValueAddress(RowAddress.Of(BlockRule.Lines, line), TradeNames.Description), "Said by a person", line.Find(TradeNames.Description)!.Value, "Said by a person", null);
            // Another template takes the first row for none: all others have other numbers.
            var anew = captured with { Lines = [.. captured.Lines.Skip(1).Select(one => one with { Number = one.Number - 1 })] };
            var row = Assert.Single(Corrected(anew, said).Checked.Captured.Lines, one => one.Find(TradeNames.Description)!.Value == "Said by a person");
            Assert.Equal(line.Number - 1, row.Number);
            // And where the row is gone, nothing is dropped in silence.
            var gone = captured with { Lines = captured.Lines.Remove(line) };
            Assert.Contains(Corrected(gone, said).Checked.Findings, finding => finding.Code == "correction-lost" && finding.Severity == Severity.Hold && finding.Message.Contains("Said by a person", StringComparison.Ordinal));
        },
        iter: Times);

    [Fact]
    public void A_finding_let_pass_is_open_again_once_its_figures_change() => OneWrong.Sample(
        (_, pages) =>
        {
            var captured = Capture(pages);
            var open = Corrected(captured).Checked.Findings.Where(finding => finding.Severity == Severity.Hold).ToList();
            var passes = open.Select(finding => (Correction)new FindingAccepted(finding.Code, finding.Message, "The vendor agrees")).ToArray();
            var after = Corrected(captured, passes);
            Assert.True(after.Checked.IsClear);
            Assert.Equal(open.Select(finding => finding.Message).Order(), after.Accepted.Select(one => one.Finding.Message).Order());
            var total = captured.Find(TradeNames.Total)!;
            var other = Corrected(captured, [.. passes, new ValueEntered(new ValueAddress(null, TradeNames.Total), "999999.99", total.Value, "999999.99", null)]);
            Assert.Contains(other.Checked.Findings, finding => finding.Code == "total");
        },
        iter: Math.Max(2, Times / 2));

    [Theory]
    [InlineData("1204.50", "1240.50", "two figures swapped")]
    [InlineData("1204.50", "1284.50", "a figure, 0 for 8")]
    [InlineData("1204.50", "120.450", "the decimal mark")]
    [InlineData("1204.50", "12104.50", "a figure lost")]
    [InlineData("1204.50", "124.50", "a figure too many")]
    [InlineData("1204.50", "-1204.50", "the sign")]
    [InlineData("1204.50", "7.10", "")]
    public void A_slip_is_named(string was, string now, string slip) =>
        Assert.Equal(slip, Slip.Between(SettledForm.Number(was)!.Value, SettledForm.Number(now)!.Value));

    [Theory]
    [InlineData("1.204,50", ValueKind.Money, "1204.50")]
    [InlineData("1204.50", ValueKind.Money, "1204.50")]
    [InlineData("1.204", ValueKind.Money, "1204")]
    [InlineData("1.204", ValueKind.Number, null)]
    [InlineData("1.2", ValueKind.Number, "1.2")]
    [InlineData("03.04.2026", ValueKind.Date, "2026-04-03")]
    [InlineData("2026-04-03", ValueKind.Date, "2026-04-03")]
    [InlineData("12,34,5", ValueKind.Money, null)]
    public void What_is_typed_is_read_as_the_vendor_writes_or_as_it_is_shown_and_never_guessed(string typed, ValueKind kind, string? settled) =>
        Assert.Equal(settled, SettledForm.Read(typed, kind, MadeUpInvoice.Template.Reads) is { IsGood: true } reading ? reading.Value : null);

    private static int RowOf(string name) => name.Contains('[') ? int.Parse(name[(name.IndexOf('[') + 1)..name.IndexOf(']')], System.Globalization.CultureInfo.InvariantCulture) : 0;

    private static string Last(string name) => name[(name.LastIndexOf('.') + 1)..];

    /// <summary>What the right invoice has that this one has otherwise.</summary>
    private static IEnumerable<(ValueAddress Address, CapturedValue Value)> Differences(CorrectedInvoice invoice, CapturedInvoice right)
    {
        var shown = invoice.Checked.Captured;
        foreach (var field in right.Fields.Where(field => shown.Find(field.Name)?.Value != field.Value))
            yield return (new ValueAddress(null, field.Name), field);
        foreach (var (list, rows, others) in new[] { (BlockRule.Lines, right.Lines, shown.Lines), (BlockRule.Taxes, right.Taxes, shown.Taxes) })
        {
            foreach (var (line, at) in rows.Select((line, at) => (line, at)))
            {
                foreach (var cell in line.Cells.Where(cell => others[at].Find(cell.Name)?.Value != cell.Value))
                    yield return (new ValueAddress(invoice.Rows[(list, others[at].Number)], cell.Name), cell);
            }
        }
    }
}
