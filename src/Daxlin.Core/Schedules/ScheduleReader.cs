using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Json;

namespace Daxlin.Core.Schedules;

/// <summary>Reads a schedule's document and says, by key and line, what is wrong with it. Its keys are told in docs/SCHEDULES.md.</summary>
public sealed class ScheduleReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 50_000;

    private const int MostTimes = 24;
    private const int MostReceivers = 20;
    private const int LongestSubject = 200;

    private readonly FaultList faults = new();

    private ScheduleReader()
    {
    }

    /// <exception cref="JsonFaultException">The document has faults.</exception>
    public static Schedule Read(string json)
    {
        if (json.Length > Longest)
            throw new JsonFaultException([new JsonFault("the document", 0, $"A schedule's document has at most {Longest} characters.")]);
        var reader = new ScheduleReader();
        var schedule = reader.ReadSchedule(JsonPlaceReader.Read(json));
        reader.faults.ThrowIfAny();
        return schedule!;
    }

    private Schedule? ReadSchedule(JsonPlace place)
    {
        (string Key, Func<JsonPlace, ScheduledAct?> Read)[] acts = [("posting", ReadPosting), ("digest", ReadDigest)];
        if (!faults.IsObjectOf(place, "name", "at", "days", "dayOfMonth", "posting", "digest"))
            return null;
        var (name, due) = (faults.RequiredName(place, "name"), ReadDue(place));
        var said = acts.Where(act => place.Find(act.Key) is not null).ToList();
        if (said.Count != 1)
        {
            faults.Add(place, said.Count == 0 ? "What is to be done is missing: “posting” or “digest”." : "A schedule does one thing; “posting” and “digest” are said. Make a schedule of each.");
            return null;
        }
        return said[0].Read(place.Find(said[0].Key)!) is { } act ? new Schedule(name, due, act) : null;
    }

    private DueTimes ReadDue(JsonPlace place)
    {
        var times = ImmutableArray.CreateBuilder<TimeOnly>();
        if (place.Find("at") is not { } at)
            faults.Add(place, "The key “at” is missing: the times of a day, as 18:30.");
        else if (faults.Texts(at) is { IsEmpty: false, Length: <= MostTimes } texts)
            times.AddRange(texts.Select(text => faults.Time(at, text)).OfType<TimeOnly>().Distinct().Order());
        else
            faults.Add(at, $"Times of a day are wanted here, as 18:30, up to {MostTimes} of them.");
        var ofMonth = place.Find("dayOfMonth") is { } day ? ReadDayOfMonth(day) : null;
        if (ofMonth is not null && place.Find("days") is { } idle)
            faults.Add(idle, "“dayOfMonth” says the day already; one of the two is wanted.");
        return new DueTimes(times.ToImmutable(), faults.Days(place.Find("days")), ofMonth);
    }

    private DayOfMonth? ReadDayOfMonth(JsonPlace place)
    {
        if (place is { IsString: true, Text: DayOfMonth.LastWord or DayOfMonth.LastWeekdayWord })
            return new DayOfMonth(null, place.Text == DayOfMonth.LastWeekdayWord);
        if (place.Kind == JsonTokenType.Number && int.TryParse(place.Text, CultureInfo.InvariantCulture, out var number) && number is >= 1 and <= DayOfMonth.Most)
            return new DayOfMonth(number, false);
        faults.Add(place, $"A day that each month has is wanted here: 1 to {DayOfMonth.Most}, \"{DayOfMonth.LastWord}\" or \"{DayOfMonth.LastWeekdayWord}\".");
        return null;
    }

    private PostingAct? ReadPosting(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "layout", "deliver", "batches"))
            return null;
        var layout = faults.OptionalName(place, "layout");
        var deliver = place.Find("deliver") is { } list ? faults.Texts(list) : [];
        if (deliver.Length > MostReceivers || deliver.Distinct().Count() < deliver.Length)
            faults.Add(place.Find("deliver")!, $"Up to {MostReceivers} receivers are wanted here, each once.");
        if (deliver.Select(DocumentName.FaultOf).FirstOrDefault(fault => fault is not null) is { } faulty)
            faults.Add(place.Find("deliver")!, faulty);
        return new PostingAct(layout, deliver, faults.OneOf(place.Find("batches"), false, ("together", false), ("each", true)));
    }

    private DigestAct? ReadDigest(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "receiver", "subject", "evenIfNothing"))
            return null;
        var subject = faults.Text(place.Find("subject"), DigestAct.UsualSubject);
        if (subject.Length is 0 or > LongestSubject || subject.Any(char.IsControl))
            faults.Add(place.Find("subject")!, $"A subject is one line of {LongestSubject} letters at most.");
        if (DigestText.Unknown(subject).FirstOrDefault() is { } unknown)
            faults.Add(place.Find("subject")!, $"“{{{unknown}}}” is not known here; there are {NamesInBraces.Listed(DigestText.Names)}.");
        return new DigestAct(faults.RequiredName(place, "receiver"), subject, faults.Flag(place.Find("evenIfNothing"), false));
    }
}
