using System.Globalization;
using System.Security.Cryptography;

namespace Daxlin.Core.History;

/// <summary>Goes through the history from its first entry and finds the first link that does not hold.</summary>
public sealed class HistoryCheck : IDisposable
{
    private readonly Dictionary<string, (int Number, string Hash)> last = [];
    private readonly IncrementalHash sinceSeal = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
    private int firstSinceSeal;

    /// <summary>How many entries were taken.</summary>
    public int Entries { get; private set; }

    /// <summary>How many seals were among them.</summary>
    public int Seals { get; private set; }

    /// <summary>The hash of the newest seal, to be noted down outside; empty while there is none.</summary>
    public string NewestSeal { get; private set; } = "";

    /// <param name="entry">The next by id.</param>
    /// <returns>Null if it hangs on what was before it.</returns>
    public BrokenLink? Take(HistoryEntry entry)
    {
        var deed = entry.Deed;
        var (number, hash) = last.GetValueOrDefault(deed.Stream, (0, HistoryChain.Beginning));
        if (entry.Number != number + 1)
        {
            return Broken(entry, entry.Number > number + 1
                ? $"{deed.Stream} goes on with entry {Text(entry.Number)} after {Text(number)}: {(entry.Number == number + 2 ? $"entry {Text(number + 1)} is" : $"entries {Text(number + 1)} to {Text(entry.Number - 1)} are")} gone"
                : $"{deed.Stream} has entry {Text(entry.Number)} after entry {Text(number)}: an entry was put in");
        }
        if (entry.Hash != HistoryChain.HashOf(hash, entry.Number, deed))
            return Broken(entry, $"entry {Text(entry.Number)} of {deed.Stream} is not what was written: it, or the one before it, was changed later");
        if (deed.Stream == HistoryStreams.Seals)
        {
            if (deed.Content != Convert.ToHexStringLower(sinceSeal.GetHashAndReset()))
            {
                return Broken(entry, $"the entries {Text(firstSinceSeal)} to {Text(entry.Id - 1)} do not come to what seal {Text(entry.Number)} says: one was taken away or put in");
            }
            (firstSinceSeal, NewestSeal) = (entry.Id, entry.Hash);
            Seals++;
        }
        else if (firstSinceSeal == 0)
        {
            firstSinceSeal = entry.Id;
        }
        HistoryChain.Append(sinceSeal, entry.Hash);
        last[deed.Stream] = (entry.Number, entry.Hash);
        Entries++;
        return null;
    }

    private static BrokenLink Broken(HistoryEntry entry, string what) => new(
        entry.Deed.Stream, entry.Id,
        $"The history is broken: {what} ({entry.Deed.At.ToString("yyyy-MM-dd HH:mm:ss 'UTC'", CultureInfo.InvariantCulture)}, {entry.Deed.What}, by {entry.Deed.By}).");

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    public void Dispose() => sinceSeal.Dispose();
}
