using System.Collections.Concurrent;

namespace Daxlin.Service.Work;

/// <summary>How far documents are whose pages are being recognised by this service: it takes seconds a page, and a person waits.</summary>
public sealed class RecognitionProgress
{
    private readonly ConcurrentDictionary<string, (int Done, int Of)> under = [];

    internal void Tell(string sha256, int done, int of) => under[sha256] = (done, of);

    internal void End(string sha256) => under.TryRemove(sha256, out _);

    /// <summary>The documents whose pages are being recognised: how many are done, and how many are to be.</summary>
    internal IReadOnlyDictionary<string, (int Done, int Of)> UnderWay => under;
}
