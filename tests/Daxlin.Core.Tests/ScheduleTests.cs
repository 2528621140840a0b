using Daxlin.Core.Json;
using Daxlin.Core.Schedules;

namespace Daxlin.Core.Tests;

/// <summary>Schedules are read with what is wrong in them, and digests say what waits.</summary>
public class ScheduleTests
{
    private static string Fault(string document) =>
        string.Join(" | ", Assert.Throws<JsonFaultException>(() => ScheduleReader.Read(document.Replace('\'', '"'))).Faults.Select(fault => $"{fault.Place}: {fault.Message}"));

    private static string[] Says(string document) => [.. ScheduleReader.Read(document.Replace('\'', '"')).Says];

    [Fact]
    public void A_schedule_says_what_it_does_and_when()
    {
        Assert.Equal(
            [
                "On Monday, Friday at 07:30 and 18:30, by the clock of the service's machine:",
                "All invoices that are approved and not posted yet are posted by the layout “ledger”, a run for each batch.", "It is delivered to office.",
                "A batch that a person would have to give a reason or a posting date for is not posted: the schedule says why, and somebody has to look.",
                "Times that pass while the service is stopped are made up by one turn, after its next start.",
            ],
            Says("{'name':'a','at':['18:30','07:30','18:30'],'days':['friday','monday'],'posting':{'layout':'ledger','deliver':'office','batches':'each'}}"));
        Assert.Equal("On the last weekday of each month at 18:00, by the clock of the service's machine:", Says("{'name':'a','at':'18:00','dayOfMonth':'last-weekday','digest':{'receiver':'office'}}")[0]);
        Assert.Equal("On day 3 of each month at 18:00, by the clock of the service's machine:", Says("{'name':'a','at':'18:00','dayOfMonth':3,'digest':{'receiver':'office'}}")[0]);
        Assert.Equal("On Monday to Friday, Sunday at 18:00, by the clock of the service's machine:", Says("{'name':'a','at':'18:00','days':['sunday','monday','tuesday','wednesday','thursday','friday'],'posting':{}}")[0]);
        Assert.Equal("Each day at 00:00, by the clock of the service's machine:", Says("{'name':'a','at':'00:00','posting':{}}")[0]);
    }

    [Fact]
    public void What_is_wrong_in_a_schedule_is_told_by_its_place()
    {
        Assert.Equal("the document: The key “at” is missing: the times of a day, as 18:30. | the document: What is to be done is missing: “posting” or “digest”.", Fault("{'name':'a'}"));
        Assert.Equal("the document: A schedule does one thing; “posting” and “digest” are said. Make a schedule of each.", Fault("{'name':'a','at':'18:30','posting':{},'digest':{'receiver':'b'}}"));
        Assert.Equal("at: “6pm” is no time of a day; one is written as 06:30.", Fault("{'name':'a','at':'6pm','posting':{}}"));
        Assert.Equal("at: Times of a day are wanted here, as 18:30, up to 24 of them.", Fault($"{{'name':'a','at':[{string.Join(',', Enumerable.Repeat("'18:30'", 25))}],'posting':{{}}}}"));
        Assert.StartsWith("days: Days are wanted here, as monday, tuesday", Fault("{'name':'a','at':'18:30','days':['mon'],'posting':{}}"), StringComparison.Ordinal);
        Assert.Equal("dayOfMonth: A day that each month has is wanted here: 1 to 28, \"last\" or \"last-weekday\".", Fault("{'name':'a','at':'18:30','dayOfMonth':31,'posting':{}}"));
        Assert.Equal("days: “dayOfMonth” says the day already; one of the two is wanted.", Fault("{'name':'a','at':'18:30','dayOfMonth':1,'days':['monday'],'posting':{}}"));
        Assert.Equal("posting.deliver: Up to 20 receivers are wanted here, each once.", Fault("{'name':'a','at':'18:30','posting':{'deliver':['b','b']}}"));
        Assert.Equal("digest.subject: “{waiting}” is not known here; there are {held}, {clear}, {approved}, {day}.", Fault("{'name':'a','at':'18:30','digest':{'receiver':'b','subject':'{waiting}'}}"));
        Assert.Contains("digest: The key “receiver” is missing.", Fault("{'name':'a','at':'18:30','digest':{}}"), StringComparison.Ordinal);
    }

    [Fact]
    public void A_digest_counts_what_it_does_not_name_and_says_when_nothing_waits()
    {
        var nothing = new WaitingFacts(new DateOnly(2026, 12, 2), 0, [], 0, 0, 0, []);
        Assert.Equal((true, "Nothing waits for a person."), (nothing.IsNothing, DigestText.Of(nothing)));
        var facts = nothing with { Held = 3, Oldest = [new("Skerrow Sailmakers 17", "1,204.50 EUR", "Moorings", "Lines add up to 1,204.00 EUR."), new("scan.pdf", "", "Moorings", "No template knows it yet.")], Approved = 2, Troubles = ["The source “share” cannot be looked at."] };
        Assert.Equal(
            """
            3 invoices to look at:
            - Skerrow Sailmakers 17, 1,204.50 EUR, in Moorings: Lines add up to 1,204.00 EUR.
            - scan.pdf, in Moorings: No template knows it yet.
            and 1 other.

            2 invoices are approved and wait to be posted.

            What stands still:
            - The source “share” cannot be looked at.
            """.ReplaceLineEndings("\n"),
            DigestText.Of(facts));
        Assert.Equal("2026-12-02: 3, 0, 2 {x}", DigestText.Subject("{day}: {held}, {clear}, {approved} {x}", facts));
        Assert.False(facts.IsNothing);
    }
}
