using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Sources;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>When files are taken, which rule fits a message, who is answered, and into which batch things go.</summary>
public class SourceTests
{
    private static readonly DateTimeOffset Noon = new(2026, 12, 1, 12, 0, 0, TimeSpan.Zero);
    private static readonly DateTime Old = new(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc);

    /// <summary>Whatever a folder does, a file is taken only as it has stood for the whole time, and each that stands still long enough is.</summary>
    [Fact]
    public void A_file_is_taken_when_it_has_stood_unchanged_for_the_whole_time_and_never_before()
    {
        var settle = TimeSpan.FromSeconds(10);
        // What each look finds: three places, each with nothing or one of two lengths; and how many seconds after the one before it comes.
        var looks = Gen.Select(Gen.Int[0, 2].Array[3], Gen.Int[1, 12]).Array[1, 20];
        looks.Sample(
            all =>
            {
                var (files, now) = (SettlingFiles.None, Noon);
                var history = new List<(DateTimeOffset At, int[] Lengths)>();
                foreach (var (lengths, seconds) in all)
                {
                    now += TimeSpan.FromSeconds(seconds);
                    history.Add((now, lengths));
                    files = files.Look([.. lengths.Select((length, place) => new SeenFile($"{place}.pdf", length, Old)).Where(file => file.Length > 0)], now);
                    foreach (var place in Enumerable.Range(0, 3))
                    {
                        var since = history.AsEnumerable().Reverse().TakeWhile(look => look.Lengths[place] == lengths[place] && lengths[place] > 0).Select(look => look.At).LastOrDefault(now);
                        Assert.Equal(lengths[place] > 0 && now - since >= settle, files.Settled(settle, now).Any(file => file.Place == $"{place}.pdf"));
                    }
                }
            },
            iter: Effort.Times(2000));
    }

    [Fact]
    public void What_was_taken_and_stays_is_taken_again_only_when_it_changes_and_what_was_moved_whenever_it_stands_there_again()
    {
        var (settle, file) = (TimeSpan.FromSeconds(1), new SeenFile("a.pdf", 5, Old));
        var seen = SettlingFiles.None.Look([file], Noon).Look([file], Noon.AddSeconds(1));
        Assert.Equal([file], seen.Settled(settle, Noon.AddSeconds(1)));
        var stays = seen.Done(file).Look([file], Noon.AddSeconds(2));
        Assert.Equal((0, 0), (stays.Settled(settle, Noon.AddSeconds(2)).Length, stays.Open));
        var changed = file with { Length = 6 };
        Assert.Equal([changed], stays.Look([changed], Noon.AddSeconds(3)).Settled(settle, Noon.AddSeconds(4)));
        // The very same, put there again at once.
        var moved = seen.Without(file).Look([file], Noon.AddSeconds(2));
        Assert.Equal((0, 1), (moved.Settled(settle, Noon.AddSeconds(2)).Length, moved.Open));
        Assert.Equal([file], moved.Settled(settle, Noon.AddSeconds(3)));
    }

    [Theory]
    [InlineData("a.pdf", true)]
    [InlineData("A.PDF", true)]
    [InlineData("week/a.pdf", true)]
    [InlineData("taken-in/a.pdf", false)]
    [InlineData("set-aside/a.pdf", false)]
    [InlineData("week/taken-in/a.pdf", true)]
    [InlineData(".hidden/a.pdf", false)]
    [InlineData("~a.pdf", false)]
    [InlineData("a.pdf.part", false)]
    [InlineData("a.txt", false)]
    [InlineData("week/Cover 12.csv", true)]
    [InlineData("week/list.csv", false)]
    public void Names_say_which_files_are_a_source_s(string place, bool isTaken) => Assert.Equal(isTaken, new FolderSource("/srv/in", ["*.pdf"], true, 10, true).Takes(place, new SourceTotals(["cover*.csv"], null)));

    [Theory]
    [InlineData("Galley {day}", "Galley 2026-12-01")]
    [InlineData("{folder}, {month}", "north, 2026-12")]
    [InlineData("  ", "unnamed")]
    public void A_batch_is_called_after_its_day_and_folder(string pattern, string name) => Assert.Equal(name, new BatchNaming(pattern).Of(new DateOnly(2026, 12, 1), "north"));

    private const string Mailbox = """
        { "name": "post", "batch": "Post", "mailbox": { "host": "mail.kestrel.example", "user": "invoices@kestrel.example", "password": "post", "answer": { "host": "mail.kestrel.example", "from": "office@kestrel.example" },
          "rules": [{ "from": "*@news.example", "take": false }, { "to": "galley@*", "hasAttachment": true, "batch": "Galley" }, { "subject": "statement", "answer": false }] } }
        """;

    private static MailboxSource Post { get; } = (MailboxSource)SourceReader.Read(Mailbox).Way;

    private static MailFacts Message(string from = "a@vendor.example", string to = "office@kestrel.example", string subject = "Invoice", bool has = true, params ImmutableArray<(string, string)> headers) =>
        new([from], [to], subject, has) { Headers = headers };

    [Fact]
    public void The_first_rule_that_fits_says_what_is_done()
    {
        Assert.True(Post.RuleFor(Message(from: "x@NEWS.example", to: "galley@kestrel.example"))!.IsLeft);
        Assert.Equal("Galley", Post.RuleFor(Message(to: "galley@kestrel.example"))!.Batch!.Pattern);
        Assert.Null(Post.RuleFor(Message(to: "galley@kestrel.example", has: false)));
        Assert.False(Post.RuleFor(Message(subject: "Your Statement of November"))!.IsAnswered);
        Assert.Null(Post.RuleFor(Message()));
        Assert.Equal("a message to galley@* and with something attached is taken into the batch “Galley”", Post.Rules[1].Says);
    }

    [Theory]
    [InlineData("a@vendor.example", "", "", "a@vendor.example")]
    [InlineData("a@vendor.example", "Auto-Submitted", "no", "a@vendor.example")]
    [InlineData("a@vendor.example", "auto-submitted", "auto-generated (invoice run)", "")]
    [InlineData("a@vendor.example", "Precedence", "Bulk", "")]
    [InlineData("a@vendor.example", "Precedence", "first-class", "a@vendor.example")]
    [InlineData("a@vendor.example", "Return-Path", "<>", "")]
    [InlineData("a@vendor.example", "Return-Path", "<a@vendor.example>", "a@vendor.example")]
    [InlineData("a@vendor.example", "List-Id", "<x>", "")]
    [InlineData("No-Reply@vendor.example", "", "", "")]
    [InlineData("office@kestrel.example", "", "", "")]
    [InlineData("Invoices@kestrel.example", "", "", "")]
    public void Persons_are_answered_and_programs_are_not(string from, string field, string value, string to)
    {
        var answer = AnswerAddress.Of(field.Length == 0 ? Message(from) : Message(from, headers: (field, value)), Post, null);
        Assert.Equal((to, to.Length == 0), (answer.To, answer.Says.Length > 0));
        Assert.Equal(AnswerAddress.Nobody, AnswerAddress.Of(Message(from), Post, Post.Rules[2]));
    }

    /// <summary>Whoever writes an amount, and with whichever marks: it is read as what it is, or not at all.</summary>
    [Fact]
    public void A_stated_amount_is_read_as_it_is_or_not_at_all()
    {
        var (marks, forms, codes) = (new[] { ".,", ",.", ", ", ".'", ".", "," }, new[] { "N2", "N1", "N0", "F2", "F0" }, new[] { "EUR", "JPY", "KWD" });
        Gen.Select(Gen.Long[-99_999_999_999, 99_999_999_999], Gen.Int[0, 5], Gen.Int[0, 4], Gen.Int[0, 2]).Sample(
            (units, mark, written, of) =>
            {
                var (form, code) = (forms[written], codes[of]);
                var minor = Currency.Find(code)!.MinorDigits;
                var amount = decimal.Round(units / 1000m, Math.Min(minor, form[1] - '0'));
                var text = amount.ToString(form, new System.Globalization.NumberFormatInfo { NumberDecimalSeparator = marks[mark][..1], NumberGroupSeparator = marks[mark][1..] });
                var (stated, fault) = CoverSheet.Read(["Currency", "Invoices", "Sum"], [[code, "12", text]]);
                if (fault.Length == 0)
                    Assert.Equal([new StatedTotal(code, 12, amount)], stated);
                else
                    // 1,204 may be twelve hundred or little more than one.
                    Assert.True(form[1] == '0' && marks[mark].Length > 1 || code == "JPY", $"{text}: {fault}");
            },
            iter: Effort.Times(5000));
    }

    [Theory]
    [InlineData("{invoices} invoices, {sum} {currency}", "", "November: 12  Invoices,	1,204.50 gbp.", "12 invoices over 1,204.50 GBP", "")]
    [InlineData("{invoices} invoices, {sum} {currency}", "", "12 invoices", "", "")]
    [InlineData("total {sum}", "EUR", "12 Rechnungen, Total 1.204,50 EUR", "any number of invoices over 1,204.50 EUR", "")]
    [InlineData("{invoices} invoices", "GBP", "Re: 3 invoices", "3 invoices in GBP", "")]
    [InlineData("({currency} {sum})", "", "Galley (EUR 1 204,50)", "any number of invoices over 1,204.50 EUR", "")]
    [InlineData("total {sum}", "EUR", "Total 1.204", "", "“1.204” may be 1.204 or 1204: write it with its decimals.")]
    [InlineData("{sum} {currency}", "", "12.00 for the", "", "“FOR” is no currency of ISO 4217; one is EUR.")]
    public void A_subject_states_what_stands_in_its_places(string pattern, string currency, string subject, string told, string fault)
    {
        var (stated, wrong) = new SubjectTotals(pattern, currency).Read(subject);
        Assert.Equal((told, fault), (ComparedTotal.Told(stated), wrong));
    }

    [Theory]
    [InlineData("currency,sum|EUR,1.00|EUR,2.00", "Line 3: EUR stands in it twice.")]
    [InlineData("currency,sum", "It states nothing: no line follows the first.")]
    [InlineData("invoice,amount|1,2.00", "Its first line says its columns: currency, invoices and sum; one of the last two may be left out.")]
    [InlineData("currency,invoices,sum|EUR,,", "Line 2: Neither a count nor a sum is stated in EUR.")]
    [InlineData("currency,invoices|EUR,-1", "Line 2: “-1” is no count of invoices.")]
    [InlineData("currency,sum|EUR,GBP 12.00", "Line 2: “GBP 12.00” is in GBP, not in EUR.")]
    [InlineData("currency,sum|JPY,12.50", "Line 2: “12.50” has more decimals than JPY has.")]
    public void A_cover_sheet_that_cannot_be_read_says_where(string sheet, string fault)
    {
        var rows = sheet.Split('|').Select(row => row.Split(',')).ToList();
        var (stated, wrong) = CoverSheet.Read(rows[0], rows.Skip(1));
        Assert.Equal((0, fault), (stated.Length, wrong));
    }

    [Fact]
    public void Where_totals_are_stated_is_read_from_a_source_s_document_and_what_is_wrong_with_it_said()
    {
        static string Faults(string totals, string way = "\"mailbox\": { \"host\": \"localhost\", \"user\": \"u\", \"password\": \"p\" }")
        {
            try
            {
                return string.Join(" ", SourceReader.Read($$"""{ "name": "post", "batch": "Post", "totals": {{totals}}, {{way}} }""").Totals.Says);
            }
            catch (Daxlin.Core.Json.JsonFaultException error)
            {
                return string.Join(" ", error.Faults.Select(fault => fault.Message));
            }
        }
        Assert.Equal(
            "A file named cover*.csv is a cover sheet: it states what the invoices beside it come to. A subject with “{sum}” in it states what the message's invoices come to, in EUR where it says no currency.",
            Faults("""{ "cover": ["cover*.csv"], "subject": "{sum}", "currency": "eur" }"""));
        Assert.Equal("“6:30” is no time of a day; one is written as 06:30. Days are wanted here, as monday, tuesday, wednesday, thursday, friday, saturday, sunday.",
            Faults("{ \"cover\": \"c.csv\" }", "\"hours\": { \"from\": \"6:30\", \"to\": \"20:00\", \"days\": [\"mon\"] }, \"folder\": { \"path\": \"/srv/in\" }"));
        Assert.Equal("In which currency? {currency} is wanted in it, or “currency” beside it.", Faults("""{ "subject": "{sum}" }"""));
        Assert.Equal("{invoices} or {sum} is wanted in it: “{invoices} invoices, {sum} {currency}”.", Faults("""{ "subject": "{currency}" }"""));
        Assert.Equal("“{total}” is not known here; there are {invoices}, {sum}, {currency}.", Faults("""{ "subject": "{total} {currency}" }"""));
        Assert.Equal("Files have no subject; “cover” is for them.", Faults("""{ "subject": "{sum} {currency}" }""", "\"folder\": { \"path\": \"/srv/in\" }"));
        Assert.Equal("“cover” or “subject” is wanted here: what cover sheets are called, or how subjects state a total.", Faults("{}"));
    }

    [Fact]
    public void Cover_sheets_of_a_folder_add_up_and_what_speaks_of_the_same_invoices_does_not()
    {
        StatingItem Item(int id, string place, bool isCover, params ImmutableArray<StatedTotal> stated) => new(id, "share", place, isCover, stated);
        var (one, two) = (new StatedTotal("EUR", 12, 100m), new StatedTotal("EUR", 3, null));
        var found = StatingItem.Together([
            Item(1, "north/cover.csv", true, one), Item(2, "north/all.zip", false, one, two), Item(3, "north/cover 2.csv", true, two, new StatedTotal("GBP", 1, 5m)), Item(4, "north/week/cover.csv", true, one),
            Item(5, "cover.csv", true, two), Item(6, "north/all.zip", false, two),
            new StatingItem(7, "other", "cover.csv", true, [one]),
        ]);
        // A sum that one of them does not state is not known of both.
        Assert.Equal(
            ["1,3: EUR 15 -, GBP 1 5", "2: EUR 12 100, EUR 3 -", "4: EUR 12 100", "5: EUR 3 -", "6: EUR 3 -", "7: EUR 12 100"],
            found.Select(all => $"{string.Join(',', all.Items.Select(item => item.Id))}: {string.Join(", ", all.Stated.Select(total => $"{total.Currency} {total.Invoices} {total.Sum?.ToString(System.Globalization.CultureInfo.InvariantCulture) ?? "-"}"))}"));
        var cover = Item(1, "north/cover.csv", true);
        Assert.Equal(["north/a.pdf"], new[] { "a.pdf", "north/a.pdf", "north/week/a.pdf", "northern/a.pdf" }.Where(cover.IsBeside));
        Assert.Equal(["a.pdf"], new[] { "a.pdf", "north/a.pdf" }.Where(Item(5, "cover.csv", true).IsBeside));
    }

    [Fact]
    public void A_source_and_its_rules_say_for_which_template_their_invoices_are()
    {
        var source = SourceReader.Read("""{ "name": "a", "batch": "b", "template": "scoter", "mailbox": { "host": "c", "user": "d", "password": "e", "rules": [{ "from": "*@scoter.example", "template": "scoter-spares" }] } }""");
        Assert.Equal(("scoter", "Its invoices are for the template “scoter”; one on which that template's cues do not stand is held."), (source.Template, source.Says[^1]));
        Assert.Equal("a message from *@scoter.example is taken, for the template “scoter-spares”", ((MailboxSource)source.Way).Rules.Single().Says);
        var faults = Assert.Throws<JsonFaultException>(() => SourceReader.Read("""{ "name": "a", "batch": "b", "mailbox": { "host": "c", "user": "d", "password": "e", "rules": [{ "take": false, "template": "scoter" }] } }""")).Faults;
        Assert.Equal("What is left alone is for no template.", Assert.Single(faults).Message);
    }

    /// <summary>Every moment of a week is of exactly those hours that began on one of their days and have not ended.</summary>
    [Fact]
    public void Hours_hold_from_the_day_on_which_they_begin_until_they_end()
    {
        var monday = new DateTime(2026, 11, 30);
        Gen.Select(Gen.Int[0, 1439], Gen.Int[0, 1439], Gen.Int[0, 6], Gen.Int[0, 7 * 1440 - 1]).Sample(
            (from, to, day, minute) =>
            {
                var hours = new LookingHours(TimeOnly.MinValue.AddMinutes(from), TimeOnly.MinValue.AddMinutes(to), [Weekdays.Words[day].Day]);
                var begins = day * 1440 + from;
                var lasts = (to - from + 1440) % 1440 is var some and > 0 ? some : 1440;
                Assert.Equal((minute - begins + 7 * 1440) % (7 * 1440) < lasts, hours.Contain(monday.AddMinutes(minute)));
            },
            iter: Effort.Times(5000));
        Assert.Equal(
            "It is looked at from 22:00 to 06:00 of the next day on Friday, Saturday, by the clock of the service's machine; “Try now” looks at any time.",
            new LookingHours(new(22, 0), new(6, 0), [DayOfWeek.Saturday, DayOfWeek.Friday]).Says);
    }

    [Fact]
    public void What_strangers_call_things_is_one_line_that_can_be_stored()
    {
        Assert.Equal("Two lines \uFFFD end", PlainLine.Of("Two\0lines\n\uD800 end", 100));
        Gen.Char.Array.Sample(
            letters =>
            {
                var line = PlainLine.Of(new string(letters), 40);
                Assert.True(line.Length <= 40 && !line.Any(char.IsControl));
                Assert.Equal(line, System.Text.Encoding.UTF8.GetString(System.Text.Encoding.UTF8.GetBytes(line)));
            },
            iter: Effort.Times(5000));
    }
}
