using System.Collections.Immutable;
using System.Security.Cryptography;
using Daxlin.Core.Capture;
using Daxlin.Reading.Pdf;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading;

/// <summary>Finds the XML files that a PDF carries (ISO 32000-2, 7.11.4): by its names of embedded files, and as associated files of the whole document.</summary>
/// <remarks>
/// Files of other kinds are never unpacked: a drawing of a hundred megabytes beside an invoice is none of its business. Whatever is wrong with
/// attachments, the pages are whole.
/// </remarks>
internal sealed class AttachedFiles
{
    private const int MostFiles = 20;
    private const int MostNodes = 2000;
    private const int Deepest = 30;
    private const string Ending = ".xml";

    private readonly PdfObjects objects;
    private readonly ImmutableArray<AttachedFile>.Builder found = ImmutableArray.CreateBuilder<AttachedFile>();
    private readonly HashSet<(string Name, string Hash)> takenOnce = [];
    private int nodes;

    private AttachedFiles(PdfObjects objects) => this.objects = objects;

    public static ImmutableArray<AttachedFile> Of(DictionaryToken catalog, PdfObjects objects)
    {
        var files = new AttachedFiles(objects);
        if (Damage.OrNull(() => objects.Dictionary(objects.Dictionary(catalog, "Names"), "EmbeddedFiles")) is { } tree)
            files.AddTree(tree, 0);
        foreach (var one in Damage.OrNull(() => objects.Array(catalog, "AF")) ?? [])
            files.Add(one);
        return files.found.ToImmutable();
    }

    /// <summary>Takes the files of a name tree: pairs of a name and a file, or further nodes.</summary>
    private void AddTree(DictionaryToken node, int depth)
    {
        if (depth > Deepest || ++nodes > MostNodes)
            return;
        var pairs = Damage.OrNull(() => objects.Array(node, "Names")) ?? [];
        for (var index = 1; index < pairs.Count; index += 2)
            Add(pairs[index]);
        foreach (var kid in Damage.OrNull(() => objects.Array(node, "Kids")) ?? [])
        {
            if (Damage.OrNull(() => objects.Resolve(kid) as DictionaryToken) is { } child)
                AddTree(child, depth + 1);
        }
    }

    private void Add(IToken specification)
    {
        if (found.Count >= MostFiles || Damage.OrNull(() => objects.Resolve(specification) as DictionaryToken) is not { } file)
            return;
        var name = FileName.Of(Damage.OrNull(() => TextOf(objects.Get(file, "UF"))) ?? Damage.OrNull(() => TextOf(objects.Get(file, "F"))) ?? "");
        if (!name.EndsWith(Ending, StringComparison.OrdinalIgnoreCase) || Damage.OrNull(() => objects.Dictionary(file, "EF")) is not { } forms)
            return;
        if ((Damage.OrNull(() => objects.Stream(forms, "UF")) ?? Damage.OrNull(() => objects.Stream(forms, "F"))) is not { } stream)
            return;
        // What cannot be unpacked is told with its name.
        ReadOnlyMemory<byte>? bytes = Damage.OrNull(() => objects.Unpack(stream).ToArray()) is { } unpacked ? unpacked : null;
        // A file is named both by the tree and among the associated ones.
        if (takenOnce.Add((name, bytes is null ? "" : Convert.ToHexString(SHA256.HashData(bytes.Value.Span)))))
            found.Add(new AttachedFile(name, bytes));
    }

    private static string? TextOf(IToken? token) => token switch
    {
        StringToken text => text.Data,
        HexToken text => text.Data,
        _ => null,
    };
}
