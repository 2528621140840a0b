using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Drafting;
using Daxlin.Core.Electronic;
using Daxlin.Core.People;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;
using Daxlin.Reading;
using Daxlin.Service.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Trial;
using Daxlin.Service.Web;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Desk;

internal static partial class DeskEndpoints
{
    /// <summary>The most documents that a template is tried on at once.</summary>
    private const int MostTried = 40;

    /// <summary>So many invoices of other vendors, one of each template, are held against a draft's cues.</summary>
    private const int MostOthers = 40;

    public static void Map(RouteGroupBuilder api)
    {
        var templates = api.MapGroup("/templates").WithTags("Desk").ChangesNeed(Right.Work);
        templates.MapPost("/draft", Draft).RequireRateLimiting(Limits.Heavy).WithSummary("Proposes a template from documents of one vendor; nothing is stored.").OnlyLooks();
        templates.MapPost("/whereabouts", Ways).RequireRateLimiting(Limits.Heavy).WithSummary("Ways to find again what a person points at, each proved on other invoices; nothing is stored.").OnlyLooks();
        templates.MapPost("/rows", Rows).RequireRateLimiting(Limits.Heavy).WithSummary("Ways to say of the item rows what a person points at, each proved on other invoices; nothing is stored.").OnlyLooks();
        templates.MapPost("/try", Try).RequireRateLimiting(Limits.Heavy).WithSummary("Captures and checks documents by a template that is not saved; nothing is stored.").OnlyLooks();
    }

    private static async Task<Results<Ok<TemplateDrafted>, EmptyHttpResult, ProblemHttpResult>> Draft(
        TemplateToDraft wanted, DaxlinDb db, DocumentStore documents, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        var (found, refusal) = await Find(wanted.Documents, Drafter.MostSamples, db, documents, cancel);
        if (refusal is not null)
            return refusal;
        var own = found.Select(one => one.Sha256).ToList();
        var newest = db.Invoices.Where(invoice => invoice.Template != "" && invoice.Template != ElectronicTemplate.Name).GroupBy(invoice => invoice.Template).Select(group => group.Max(invoice => invoice.Id));
        var others = await db.Invoices.Where(invoice => newest.Contains(invoice.Id) && !own.Contains(invoice.Intake.Sha256))
            .OrderByDescending(invoice => invoice.Id).Take(MostOthers).Select(invoice => new { invoice.Intake.Sha256, invoice.Intake.FileName }).ToListAsync(cancel);
        return await Answer(
            new DeskTask(null, wanted.Vendor, found, [.. others.Select(one => DeskDocument.Of(documents, one.Sha256, one.FileName))])
            {
                TakenNames = [.. await db.Templates.Select(template => template.Name).Distinct().ToListAsync(cancel)],
            },
            processes, response, cancel) is { } failure ? failure : TypedResults.Empty;
    }

    private static async Task<Results<Ok<TrialResult>, EmptyHttpResult, ProblemHttpResult>> Try(
        TemplateToTry wanted, DaxlinDb db, DocumentStore documents, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        if (wanted.Template is not { Length: > 0 and <= TemplateReader.LongestDocument } template)
            return Faulty("template-faulty", $"A template is a text of 1 to {TemplateReader.LongestDocument} characters.");
        var (found, refusal) = await Find(wanted.Documents, MostTried, db, documents, cancel);
        if (refusal is not null)
            return refusal;
        return await Answer(new DeskTask(template, null, found, []), processes, response, cancel) is { } failure ? failure : TypedResults.Empty;
    }

    private static async Task<Results<Ok<ImmutableArray<WayToFind>>, EmptyHttpResult, ProblemHttpResult>> Ways(
        ValueToFind wanted, DaxlinDb db, DocumentStore documents, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        if (wanted.Template is not { Length: > 0 and <= TemplateReader.LongestDocument } template)
            return Faulty("template-faulty", $"A template is a text of 1 to {TemplateReader.LongestDocument} characters.");
        if (wanted.Field is not { } field || !FieldName().IsMatch(field))
            return Faulty("name-faulty", "A value's name is a small letter, then letters and figures, as deliveryNote.");
        if (ValueKinds.Find(wanted.Type ?? ValueKind.Text.Word()) is not { } kind)
            return Faulty("type-unknown", $"A value's type is one of {string.Join(", ", ValueKinds.Words.ToArray().Select(one => one.Word))}.");
        if (wanted.Box is not { } box || wanted.Page < 1)
            return Faulty("place-faulty", "Say the page, from 1, and the box of the value, in points.");
        var (shown, others, refusal) = await FindPointed(wanted.Document, wanted.Others, db, documents, cancel);
        if (refusal is not null)
            return refusal;
        var task = new DeskTask(template, null, shown, others) { Pointed = new PointedPlace(wanted.Page, box, field, kind) };
        return await Answer(task, processes, response, cancel) is { } failure ? failure : TypedResults.Empty;
    }

    private static async Task<Results<Ok<ImmutableArray<WayToCapture>>, EmptyHttpResult, ProblemHttpResult>> Rows(
        RowsToFind wanted, DaxlinDb db, DocumentStore documents, ReadingProcesses processes, HttpResponse response, CancellationToken cancel)
    {
        if (wanted.Template is not { Length: > 0 and <= TemplateReader.LongestDocument } template)
            return Faulty("template-faulty", $"A template is a text of 1 to {TemplateReader.LongestDocument} characters.");
        if (!Enum.TryParse<RowMeaning>(wanted.What, ignoreCase: true, out var what) || !Enum.IsDefined(what) || int.TryParse(wanted.What, out _))
            return Faulty("meaning-unknown", "What is pointed at is headings, column, placed, opens, closes, section or leaveOut; nothing is pointed at for rows.");
        if (what is RowMeaning.Column or RowMeaning.Placed && (wanted.Column is not { } column || !FieldName().IsMatch(column)))
            return Faulty("name-faulty", "A column's name is a small letter, then letters and figures, as serialNumber.");
        if (what != RowMeaning.Rows && (wanted.Box is null || wanted.Page < 1))
            return Faulty("place-faulty", "Say the page, from 1, and the box of what is pointed at, in points.");
        var (shown, others, refusal) = await FindPointed(wanted.Document, wanted.Others, db, documents, cancel);
        if (refusal is not null)
            return refusal;
        var task = new DeskTask(template, null, shown, others) { PointedRows = new PointedRows(wanted.Page, what == RowMeaning.Rows ? null : wanted.Box, what, wanted.Column) };
        return await Answer(task, processes, response, cancel) is { } failure ? failure : TypedResults.Empty;
    }

    private static ProblemHttpResult Faulty(string code, string sentence) => Problem.Of(StatusCodes.Status422UnprocessableEntity, code, sentence);

    [GeneratedRegex("^[a-z][A-Za-z0-9]{0,49}$")]
    private static partial Regex FieldName();

    /// <summary>The documents of some hashes, in their order.</summary>
    private static async Task<(ImmutableArray<DeskDocument> Found, ProblemHttpResult? Refusal)> Find(
        ImmutableArray<string> hashes, int most, DaxlinDb db, DocumentStore documents, CancellationToken cancel)
    {
        if (hashes.IsDefaultOrEmpty || hashes.Length > most)
            return ([], Faulty("documents-faulty", $"Name 1 to {most} documents, each by its SHA-256."));
        if (hashes.FirstOrDefault(hash => hash is null || !DocumentStore.IsHash(hash)) is not null || hashes.Contains(null!))
            return ([], Faulty("documents-faulty", "A document is named by its SHA-256, 64 small hexadecimal digits."));
        var names = await db.Intakes.Where(intake => hashes.Contains(intake.Sha256)).Select(intake => new { intake.Sha256, intake.FileName }).ToListAsync(cancel);
        var found = hashes.Distinct().Select(hash => names.FirstOrDefault(name => name.Sha256 == hash)).ToList();
        if (found.Exists(one => one is null))
            return ([], Problem.NotThere("such document"));
        return ([.. found.Select(one => DeskDocument.Of(documents, one!.Sha256, one.FileName))], null);
    }

    /// <summary>The document that is pointed at, and those on which it is proved.</summary>
    private static async Task<(ImmutableArray<DeskDocument> Shown, ImmutableArray<DeskDocument> Others, ProblemHttpResult? Refusal)> FindPointed(
        string? document, ImmutableArray<string> others, DaxlinDb db, DocumentStore documents, CancellationToken cancel)
    {
        var (shown, refusal) = await Find([document ?? ""], 1, db, documents, cancel);
        if (refusal is not null || others.IsDefaultOrEmpty)
            return (shown, [], refusal);
        (var found, refusal) = await Find(others, MostTried, db, documents, cancel);
        return (shown, found, refusal);
    }

    private static Task<ProblemHttpResult?> Answer(DeskTask task, ReadingProcesses processes, HttpResponse response, CancellationToken cancel) =>
        FromReader.Answer(take => processes.Desk(task, take, cancel), response, cancel);
}
