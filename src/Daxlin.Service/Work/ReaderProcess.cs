using System.Collections.Immutable;
using System.Text.Json;
using System.Text.RegularExpressions;
using Daxlin.Core;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Sources;
using Daxlin.Reading;
using Daxlin.Reading.Containers;
using Daxlin.Reading.Pictures;
using Daxlin.Reading.Recognising;
using Daxlin.Service.Desk;
using Daxlin.Service.Documents;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Work;

/// <summary>
/// The process that touches strangers' bytes and templates' patterns, apart from the service: a document that runs out of
/// memory, overflows the stack or never ends takes this process down and nothing else.
/// </summary>
/// <remarks>Its first line says why it could not be shut off (<see cref="Confinement"/>), and is empty if it was. Then one <see cref="ReadingTask"/> a line comes in, one <see cref="ReadingAnswer"/> a line goes out. It ends with its input, so it never outlives the service.</remarks>
internal sealed class ReaderProcess
{
    public const string Argument = "read-documents";

    /// <summary>The most bytes of one result: some 30,000 item rows. What is more would be the service's memory.</summary>
    private const long LargestResult = 48L << 20;

    /// <summary>So many templates are kept read.</summary>
    private const int MostRead = 100;

    private string shelf = "";
    private TemplateSet templates = [];
    private Dictionary<string, int> versions = [];
    private ImmutableArray<(string Name, ImmutableArray<Cue> Must, Func<Template?> Template)> cues = [];
    private (string Draft, TemplateSet Templates) rehearsed = ("", []);
    private readonly Dictionary<string, (string Document, Template? Template)> read = [];

    public static int Run()
    {
        var process = new ReaderProcess();
        using var output = new StreamWriter(Console.OpenStandardOutput()) { AutoFlush = true };
        output.WriteLine(Confinement.Begin());
        while (Console.In.ReadLine() is { } line)
            output.WriteLine(JsonSerializer.Serialize(process.DoSurely(JsonSerializer.Deserialize<ReadingTask>(line)!)));
        return 0;
    }

    /// <summary>A pattern's time is measured by the clock, and a busy machine stands still at times: what is slow is so twice.</summary>
    private ReadingAnswer DoSurely(ReadingTask task) => Do(task) is { Code: not PatternSlow } answer ? answer : Do(task);

    private const string PatternSlow = "pattern-slow";

    private ReadingAnswer Do(ReadingTask task)
    {
        try
        {
            if (task.Desk is { } desk)
                return DoForDesk(desk, task.Result);
            if (task.Unpack is { } unpack)
                return DoUnpack(unpack, task);
            if (task.Recognise is { } recognise)
                return DoRecognise(recognise, task);
            var document = KeptBytes.Read(task.Document, task.Sha256, task.Recognised);
            var pages = document.Pages;
            using var result = new FileStream(task.Result, FileMode.Create, FileAccess.Write);
            if (task.Facts is null)
            {
                JsonSerializer.Serialize(result, pages.Select(PageRecord.Of).ToImmutableArray(), JsonSerializerOptions.Web);
                return ReadingAnswer.Done;
            }
            Load(task.Templates!);
            var used = task.Draft is { } draft ? With(draft) : templates;
            var invoices = InvoicePath.Take(pages, used, document.FactsWith(task.Facts), Chosen(task));
            // A draft has no version yet.
            JsonSerializer.Serialize(result, new DocumentOutcome(pages.Length, [.. invoices.Select(taken => InvoiceOutcome.Of(taken, of => versions.GetValueOrDefault(of.Name)))]), DocumentOutcome.Json);
            return result.Length <= LargestResult ? ReadingAnswer.Done
                : new("too-large", $"The document has more item rows than one invoice can: what was captured of it takes {result.Length >> 20} MB, and {LargestResult >> 20} MB are the most.");
        }
        catch (PicturesUnreadException error)
        {
            return new(error.Code, error.Message) { Pictured = error.Pages, Sha256 = error.Document };
        }
        catch (UnreadableException error)
        {
            return new(error.Code, error.Message);
        }
        catch (RegexMatchTimeoutException error)
        {
            return new(PatternSlow, $"A pattern took too long on this document and was given up: {PlaceOf(error.Pattern)}. Write it without nested repeats.");
        }
        catch (OutOfMemoryException)
        {
            // The next document finds the memory free again; if not, the process dies and is started anew.
            return new("too-large", "The document takes more memory to capture than a document may; it was set aside.");
        }
        catch (IOException error) when (StorageFaults.IsFull(error))
        {
            return new("disk-full", "The disk is full.");
        }
        catch (Exception error)
        {
            // A fault of Daxlin's own: the service logs what stands on the error output, and nothing else is disturbed.
            Console.Error.WriteLine(error.ToString().ReplaceLineEndings(" "));
            return new("failed", "Daxlin failed on this document; the log has the details. Its bytes are kept.");
        }
    }

    private PageRecogniser? recogniser;

    /// <summary>The recognisers take a second to be started and are kept; a process that recognises does nothing else.</summary>
    private ReadingAnswer DoRecognise(RecogniseTask recognise, ReadingTask task)
    {
        try
        {
            var picture = recognise.Dpi > 0 ? GreyPicture.OfPgm(File.ReadAllBytes(task.Document), recognise.Dpi)
                : PictureFile.Page(KeptBytes.Of(task.Document, task.Sha256), recognise.Number);
            var page = (recogniser ??= PageRecogniser.Start()).Recognise(recognise.Number, picture);
            using var result = new FileStream(task.Result, FileMode.Create, FileAccess.Write);
            RecognisedPages.Write(result, page);
            if (recognise.Picture is { } png)
                File.WriteAllBytes(png, PngFile.Of(picture.Width, picture.Height, picture.Dots));
            return ReadingAnswer.Done;
        }
        catch (RecognitionMissingException error)
        {
            return new(RecognitionMissingException.Code, error.Message);
        }
    }

    private static ReadingAnswer DoUnpack(UnpackTask unpack, ReadingTask task)
    {
        using var file = new FileStream(task.Result, FileMode.Create, FileAccess.Write);
        JsonSerializer.Serialize(file, Unpacker.Unpack(unpack.Name, task.Document, unpack.Folder, totals: new SourceTotals(unpack.Covers, null)), JsonSerializerOptions.Web);
        return ReadingAnswer.Done;
    }

    private static ReadingAnswer DoForDesk(DeskTask task, string result)
    {
        using var file = new FileStream(result, FileMode.Create, FileAccess.Write);
        if (task.Pointed is not null)
            JsonSerializer.Serialize(file, DeskWork.Ways(task), DeskJson);
        else if (task.PointedRows is not null)
            JsonSerializer.Serialize(file, DeskWork.RowWays(task), DeskJson);
        else if (task.Repeated is not null)
            JsonSerializer.Serialize(file, DeskWork.Teach(task), DeskJson);
        else if (task.Template is null)
            JsonSerializer.Serialize(file, DeskWork.Draft(task), DeskJson);
        else
            JsonSerializer.Serialize(file, DeskWork.Try(task), DeskJson);
        return ReadingAnswer.Done;
    }

    private static readonly JsonSerializerOptions DeskJson = new(JsonSerializerDefaults.Web) { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Cues are read once for each state of the shelf, a template when the first page calls it up.</summary>
    private void Load(string file)
    {
        if (file == shelf)
            return;
        using var stream = File.OpenRead(file);
        var shelved = JsonSerializer.Deserialize<ImmutableArray<ShelvedTemplate>>(stream);
        versions = shelved.ToDictionary(one => one.Name, one => one.Version);
        read.Clear();
        cues = [.. shelved.Select(one => (one.Name, TemplateReader.MustOf(one.Document), (Func<Template?>)(() => Read(one))))];
        templates = new TemplateSet(cues.Select(one => (one.Must, one.Template)));
        (shelf, rehearsed) = (file, ("", []));
    }

    /// <summary>What persons chose, by the templates that there are; a draft stands in the place of the one of its name.</summary>
    private ImmutableArray<ChosenTemplate> Chosen(ReadingTask task)
    {
        var chosen = ImmutableArray.CreateBuilder<ChosenTemplate>();
        foreach (var (first, last, name) in task.Chosen)
        {
            var template = task.Draft is { } draft && TemplateReader.Read(draft) is var own && own.Name == name ? own
                : cues.FirstOrDefault(one => one.Name == name).Template?.Invoke();
            if (template is not null)
                chosen.Add(new ChosenTemplate(first, last, template));
        }
        return chosen.ToImmutable();
    }

    /// <summary>All templates, with a draft in the place of the one of its name. One draft is kept: a rehearsal takes thousands of documents by it.</summary>
    private TemplateSet With(string draft)
    {
        if (rehearsed.Draft == draft)
            return rehearsed.Templates;
        var template = TemplateReader.Read(draft);
        rehearsed = (draft, new TemplateSet(cues.Where(one => one.Name != template.Name).Select(one => (one.Must, one.Template))
            .Append((template.Recognise.Must, () => template))));
        return rehearsed.Templates;
    }

    /// <remarks>One that an earlier release saved and this one cannot read keeps none of the others from their work.</remarks>
    private Template? Read(ShelvedTemplate one)
    {
        if (read.TryGetValue(one.Name, out var kept))
            return kept.Template;
        // Patterns take a megabyte a template; those of hundreds of vendors at once would take all that the process may have.
        if (read.Count >= MostRead)
            read.Clear();
        var template = TemplateReader.Check(one.Document).Template;
        read[one.Name] = (one.Document, template);
        return template;
    }

    /// <summary>The template and the key that a pattern stands at.</summary>
    private string PlaceOf(string pattern)
    {
        foreach (var (name, (document, _)) in read)
        {
            if (TemplateReader.KeyOf(document, pattern) is { } key)
                return $"{key} of the template {name}, {Shortened(pattern)}";
        }
        return Shortened(pattern);
    }

    private static string Shortened(string pattern) => pattern.Length <= 80 ? pattern : pattern[..79] + "…";
}
