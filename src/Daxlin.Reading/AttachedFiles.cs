using System.Collections.Immutable;
using System.Security.Cryptography;
using Daxlin.Core.Capture;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading;

/// <summary>Finds the XML files that a PDF carries (ISO 32000-2, 7.11.4): by its names of embedded files, and as associated files of the whole document.</summary>
/// <remarks>Files of other kinds are never unpacked: a drawing of a hundred megabytes beside an invoice is none of its business.</remarks>
internal sealed class AttachedFiles
{
    private const int MostFiles = 20;
    private const int MostNodes = 2000;
    private const int Deepest = 30;
    private const string Ending = ".xml";

    private static readonly NameToken EmbeddedFiles = NameToken.Create("EmbeddedFiles");
    private static readonly NameToken Names = NameToken.Create("Names");
    private static readonly NameToken Kids = NameToken.Create("Kids");
    private static readonly NameToken Associated = NameToken.Create("AF");
    private static readonly NameToken Embedded = NameToken.Create("EF");
    private static readonly NameToken File = NameToken.Create("F");
    private static readonly NameToken UnicodeFile = NameToken.Create("UF");

    private readonly PdfDocument document;
    private readonly IFilterProvider filters;
    private readonly ImmutableArray<AttachedFile>.Builder found = ImmutableArray.CreateBuilder<AttachedFile>();
    private readonly HashSet<(string Name, string Hash)> takenOnce = [];
    private int nodes;

    private AttachedFiles(PdfDocument document, IFilterProvider filters) => (this.document, this.filters) = (document, filters);

    public static ImmutableArray<AttachedFile> Of(PdfDocument document, IFilterProvider filters)
    {
        var files = new AttachedFiles(document, filters);
        var catalog = document.Structure.Catalog.CatalogDictionary;
        if (files.Get<DictionaryToken>(catalog, Names) is { } names && files.Get<DictionaryToken>(names, EmbeddedFiles) is { } tree)
            files.AddTree(tree, 0);
        if (files.Get<ArrayToken>(catalog, Associated) is { } associated)
        {
            foreach (var one in associated.Data)
                files.Add(one);
        }
        return files.found.ToImmutable();
    }

    /// <summary>Takes the files of a name tree: pairs of a name and a file, or further nodes.</summary>
    private void AddTree(DictionaryToken node, int depth)
    {
        if (depth > Deepest || ++nodes > MostNodes)
            return;
        if (Get<ArrayToken>(node, Names) is { } pairs)
        {
            for (var index = 1; index < pairs.Data.Count; index += 2)
                Add(pairs.Data[index]);
        }
        if (Get<ArrayToken>(node, Kids) is { } kids)
        {
            foreach (var kid in kids.Data)
            {
                if (Resolve(kid) is DictionaryToken child)
                    AddTree(child, depth + 1);
            }
        }
    }

    private void Add(IToken specification)
    {
        if (found.Count >= MostFiles || Resolve(specification) is not DictionaryToken file)
            return;
        var name = FileName.Of(TextOf(Get<IToken>(file, UnicodeFile)) ?? TextOf(Get<IToken>(file, File)) ?? "");
        if (!name.EndsWith(Ending, StringComparison.OrdinalIgnoreCase) || Get<DictionaryToken>(file, Embedded) is not { } forms)
            return;
        // A file is named both by the tree and among the associated ones.
        if ((Get<StreamToken>(forms, UnicodeFile) ?? Get<StreamToken>(forms, File)) is not { } stream)
            return;
        var bytes = Unpacked(stream);
        if (takenOnce.Add((name, bytes is null ? "" : Convert.ToHexString(SHA256.HashData(bytes.Value.Span)))))
            found.Add(new AttachedFile(name, bytes));
    }

    /// <returns>Null if it cannot be unpacked: the pages are whole all the same.</returns>
    private ReadOnlyMemory<byte>? Unpacked(StreamToken stream)
    {
        try
        {
            var bytes = new Memory<byte>(stream.Data.ToArray());
            var index = 0;
            foreach (var filter in filters.GetFilters(stream.StreamDictionary))
                bytes = filter.Decode(bytes, stream.StreamDictionary, filters, index++);
            return bytes;
        }
        catch (Exception error) when (error is not (UnreadableException or OutOfMemoryException or InsufficientExecutionStackException))
        {
            return null;
        }
    }

    private T? Get<T>(DictionaryToken dictionary, NameToken key) where T : class, IToken =>
        dictionary.TryGet(key, out var token) ? Resolve(token) as T : null;

    /// <summary>What a reference refers to; null for one that goes nowhere: whatever is wrong with attachments, the pages are whole.</summary>
    private IToken? Resolve(IToken token)
    {
        try
        {
            return token is IndirectReferenceToken reference ? document.Structure.GetObject(reference.Data)?.Data : token;
        }
        catch (Exception error) when (error is not (UnreadableException or OutOfMemoryException or InsufficientExecutionStackException))
        {
            return null;
        }
    }

    private static string? TextOf(IToken? token) => token switch
    {
        StringToken text => text.Data,
        HexToken text => text.Data,
        _ => null,
    };
}
