namespace Daxlin.Core.History;

/// <summary>A deed in its place in the history.</summary>
/// <param name="Id">Its place among all entries, rising.</param>
/// <param name="Number">Its place in its stream, from 1 without a gap.</param>
/// <param name="Hash">By which it hangs on the entry before it in its stream; see <see cref="HistoryChain"/>.</param>
public sealed record HistoryEntry(int Id, int Number, Deed Deed, string Hash);
