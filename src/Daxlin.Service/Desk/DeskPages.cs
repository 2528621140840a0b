using Daxlin.Reading;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Desk;

/// <summary>The pages of documents that the desk has read, kept by a reading process: each change of a template is tried on the same ones.</summary>
/// <remarks>Their bytes are looked at each time, so that a document that was lost or altered on the disk is told as everywhere.</remarks>
internal static class DeskPages
{
    /// <summary>So many pages are kept, some 100 KB each; those used longest ago go first.</summary>
    private const int Most = 500;

    private static readonly LinkedList<(string Sha256, ReadDocument Read)> Kept = new();

    /// <exception cref="UnreadableException">The document cannot be read.</exception>
    /// <returns>What was read of it, and how many bytes the document has.</returns>
    public static (ReadDocument Read, int Size) Of(DeskDocument document)
    {
        var size = KeptBytes.Of(document.Path, document.Sha256).Length;
        var (node, count) = (Kept.First, 0);
        while (node is not null && node.Value.Sha256 != document.Sha256)
            node = node.Next;
        if (node is not null)
            Kept.Remove(node);
        Kept.AddFirst(node?.Value ?? (document.Sha256, KeptBytes.Read(document.Path, document.Sha256, document.Recognised)));
        foreach (var kept in Kept)
            count += kept.Read.Pages.Length;
        for (; count > Most && Kept.Count > 1; Kept.RemoveLast())
            count -= Kept.Last!.Value.Read.Pages.Length;
        return (Kept.First!.Value.Read, size);
    }
}
