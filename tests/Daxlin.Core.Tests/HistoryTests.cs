using CsCheck;
using Daxlin.Core.History;

namespace Daxlin.Core.Tests;

/// <summary>Whatever is changed in a history later, the first broken link is found; an untouched one is whole.</summary>
public class HistoryTests
{
    private static readonly DateTime Start = new(2026, 3, 2, 8, 0, 0, DateTimeKind.Utc);

    /// <summary>Some streams' entries in one row, sealed now and then and at the end.</summary>
    private static readonly Gen<List<HistoryEntry>> Histories =
        from deeds in (from stream in Gen.Int[1, 4] from text in Gen.String[Gen.Char["ab|\0é"], 0, 4] from isSeal in Gen.Frequency((5, Gen.Const(false)), (1, Gen.Const(true))) select (stream, text, isSeal)).List[2, 30]
        select Written(deeds);

    private static List<HistoryEntry> Written(List<(int Stream, string Text, bool IsSeal)> wanted)
    {
        var (entries, heads, unsealed) = (new List<HistoryEntry>(), new Dictionary<string, HistoryEntry>(), new List<string>());
        foreach (var (stream, text, isSeal) in wanted.Prepend((1, "first", false)).Append((0, "", true)))
        {
            if (isSeal && unsealed.Count == 0)
                continue;
            var at = Start.AddMinutes(entries.Count);
            var deed = isSeal ? new Deed(HistoryStreams.Seals, at, Deed.Daxlin, "sealed", "sealed") { Content = HistoryChain.SealOf(unsealed) }
                : new Deed(HistoryStreams.Invoice(stream), at, "mira", "corrected", text) { Before = text, After = text + "x" };
            heads.TryGetValue(deed.Stream, out var head);
            var number = (head?.Number ?? 0) + 1;
            var entry = new HistoryEntry(entries.Count + 1, number, deed, HistoryChain.HashOf(head?.Hash ?? HistoryChain.Beginning, number, deed));
            entries.Add(entry);
            heads[deed.Stream] = entry;
            if (isSeal)
                unsealed.Clear();
            unsealed.Add(entry.Hash);
        }
        return entries;
    }

    private static BrokenLink? Check(IEnumerable<HistoryEntry> entries)
    {
        using var check = new HistoryCheck();
        return entries.Select(check.Take).FirstOrDefault(broken => broken is not null);
    }

    [Fact]
    public void What_was_written_is_whole() => Histories.Sample(entries => Check(entries) is null);

    [Fact]
    public void A_changed_part_of_any_entry_is_found_at_that_entry() =>
        Gen.Select(Histories, Gen.Int[0, 1000], Gen.Int[0, 8]).Sample((entries, which, part) =>
        {
            var at = which % entries.Count;
            var deed = entries[at].Deed;
            var changed = part switch
            {
                0 => deed with { At = deed.At.AddTicks(1) },
                1 => deed with { By = deed.By + "a" },
                2 => deed with { Act = "approved" },
                3 => deed with { What = deed.What + "|" },
                4 => deed with { Before = deed.Before + "a" },
                // Moving a letter from one part to its neighbour is a change, too.
                5 => deed with { Before = deed.Before + deed.After, After = "" },
                6 => deed with { Reason = "because" },
                7 => deed with { Letter = "Dear vendor" },
                _ => deed with { Content = "0" + deed.Content },
            };
            if (changed == deed)
                return true;
            return Check(entries.Select((entry, index) => index == at ? entry with { Deed = changed } : entry)) is { } broken && broken.Entry == at + 1 && broken.Sentence.Contains(broken.Stream, StringComparison.Ordinal);
        });

    [Fact]
    public void An_entry_taken_away_from_before_a_seal_is_found_by_that_seal_at_the_latest() =>
        Gen.Select(Histories, Gen.Int[0, 1000]).Sample((entries, which) =>
        {
            var at = which % entries.Count;
            if (at == entries.Count - 1)
                return true;
            var seal = entries.FindIndex(at + 1, entry => entry.Deed.Stream == HistoryStreams.Seals);
            return Check(entries.Where((_, index) => index != at)) is { } broken && broken.Entry <= seal + 1;
        });

    [Fact]
    public void Two_entries_swapped_are_found() =>
        Gen.Select(Histories, Gen.Int[0, 1000]).Sample((entries, which) =>
        {
            var at = which % (entries.Count - 1);
            var swapped = entries.ToList();
            (swapped[at], swapped[at + 1]) = (entries[at + 1], entries[at]);
            return Check(swapped) is not null;
        });

    [Fact]
    public void A_rehashed_entry_breaks_the_entry_behind_it()
    {
        var entries = Written([(1, "b", false), (1, "c", false)]);
        var forged = entries[1].Deed with { After = "other" };
        entries[1] = new HistoryEntry(2, 2, forged, HistoryChain.HashOf(entries[0].Hash, 2, forged));
        var broken = Check(entries);
        Assert.Equal(3, broken!.Entry);
        Assert.Equal("The history is broken: entry 3 of invoice/1 is not what was written: it, or the one before it, was changed later (2026-03-02 08:02:00 UTC, c, by mira).", broken.Sentence);
    }
}
