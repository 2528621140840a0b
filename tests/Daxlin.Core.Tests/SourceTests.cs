using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Sources;
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
    public void Names_say_which_files_are_a_source_s(string place, bool isTaken) => Assert.Equal(isTaken, new FolderSource("/srv/in", ["*.pdf"], true, 10, true).Takes(place));

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
