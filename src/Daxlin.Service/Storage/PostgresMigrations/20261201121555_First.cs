using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class First : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ApprovalRulings",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false),
                    Rules = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ApprovalRulings", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Batches",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    CreatedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    ControlTotals = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    Group = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Batches", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Captures",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Template = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TemplateVersion = table.Column<int>(type: "integer", nullable: false),
                    Record = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Sha256 = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Captures", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "CodedCases",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    VendorId = table.Column<int>(type: "integer", nullable: false),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    Like = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Shares = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CodedCases", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Codings",
                columns: table => new
                {
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Codings", x => x.Version);
                });

            migrationBuilder.CreateTable(
                name: "Corrections",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Act = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Undoes = table.Column<int>(type: "integer", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Corrections", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "DeskDrafts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    Vendor = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ChangedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    ChangedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Revision = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DeskDrafts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "History",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Stream = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Number = table.Column<int>(type: "integer", nullable: false),
                    At = table.Column<string>(type: "text", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Act = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    What = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Before = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    After = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Reason = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Letter = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Content = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Hash = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_History", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Layouts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsRetired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Layouts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Leases",
                columns: table => new
                {
                    Work = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Of = table.Column<int>(type: "integer", nullable: false),
                    Node = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Leases", x => new { x.Work, x.Of });
                });

            migrationBuilder.CreateTable(
                name: "Lists",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Entries = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Count = table.Column<int>(type: "integer", nullable: false),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Lists", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "People",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    RoleWords = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    GroupNames = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsDisabled = table.Column<bool>(type: "boolean", nullable: false),
                    IsByProvider = table.Column<bool>(type: "boolean", nullable: false),
                    AddedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    LinkSha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    LinkUntil = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    LastCode = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    UserName = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    NormalizedUserName = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    Email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    NormalizedEmail = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    EmailConfirmed = table.Column<bool>(type: "boolean", nullable: false),
                    PasswordHash = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    SecurityStamp = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    ConcurrencyStamp = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    PhoneNumber = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    PhoneNumberConfirmed = table.Column<bool>(type: "boolean", nullable: false),
                    TwoFactorEnabled = table.Column<bool>(type: "boolean", nullable: false),
                    LockoutEnd = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    LockoutEnabled = table.Column<bool>(type: "boolean", nullable: false),
                    AccessFailedCount = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_People", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PeriodClosings",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false),
                    Through = table.Column<DateOnly>(type: "date", nullable: true),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Reason = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PeriodClosings", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PostedFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    RunNumber = table.Column<int>(type: "integer", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    MediaType = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Records = table.Column<int>(type: "integer", nullable: false),
                    Content = table.Column<byte[]>(type: "bytea", nullable: false),
                    Sha256 = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PostedFiles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PostedInvoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    RunNumber = table.Column<int>(type: "integer", nullable: false),
                    WithdrawnIn = table.Column<int>(type: "integer", nullable: true),
                    Origin = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ContentSha256 = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PostedInvoices", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PostingRuns",
                columns: table => new
                {
                    Number = table.Column<int>(type: "integer", nullable: false),
                    BatchId = table.Column<int>(type: "integer", nullable: true),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Invoices = table.Column<int>(type: "integer", nullable: false),
                    Rows = table.Column<int>(type: "integer", nullable: false),
                    Layout = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    LayoutVersion = table.Column<int>(type: "integer", nullable: false),
                    Lists = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    CodingVersion = table.Column<int>(type: "integer", nullable: false),
                    ClosedThrough = table.Column<DateOnly>(type: "date", nullable: true),
                    PostingDate = table.Column<DateOnly>(type: "date", nullable: true),
                    Reverses = table.Column<int>(type: "integer", nullable: true),
                    Reason = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    RequestKey = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    Sums = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PostingRuns", x => x.Number);
                });

            migrationBuilder.CreateTable(
                name: "Receivers",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsRetired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Receivers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Rehearsals",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Template = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    BaseVersion = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    BatchId = table.Column<int>(type: "integer", nullable: true),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    RequestKey = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Failure = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Documents = table.Column<int>(type: "integer", nullable: false),
                    Done = table.Column<int>(type: "integer", nullable: false),
                    LastIntakeId = table.Column<int>(type: "integer", nullable: false),
                    Same = table.Column<int>(type: "integer", nullable: false),
                    Own = table.Column<int>(type: "integer", nullable: false),
                    OwnRecognised = table.Column<int>(type: "integer", nullable: false),
                    Others = table.Column<int>(type: "integer", nullable: false),
                    OthersRecognised = table.Column<int>(type: "integer", nullable: false),
                    Unreadable = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Rehearsals", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "TemplateChoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    IntakeId = table.Column<int>(type: "integer", nullable: false),
                    FirstPage = table.Column<int>(type: "integer", nullable: false),
                    LastPage = table.Column<int>(type: "integer", nullable: false),
                    Template = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TemplateChoices", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Templates",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Vendor = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Currency = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsRetired = table.Column<bool>(type: "boolean", nullable: false),
                    Formerly = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Templates", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Vendors",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TaxIds = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Currency = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TermsDays = table.Column<int>(type: "integer", nullable: true),
                    TermsFromMonthEnd = table.Column<bool>(type: "boolean", nullable: false),
                    LedgerAccount = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TaxCode = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Group = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Revision = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Vendors", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Intakes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    BatchId = table.Column<int>(type: "integer", nullable: false),
                    Sha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    FileName = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Size = table.Column<long>(type: "bigint", nullable: false),
                    ReceivedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    Pages = table.Column<int>(type: "integer", nullable: false),
                    InvoiceNumber = table.Column<int>(type: "integer", nullable: false),
                    ReasonCode = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Reason = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Round = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Intakes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Intakes_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AccessKeys",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    PersonId = table.Column<int>(type: "integer", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Beginning = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Sha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    RightWords = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    MadeAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    ExpiresAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    LastUsedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    LastUsedFrom = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    RevokedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    Revision = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AccessKeys", x => x.Id);
                    table.ForeignKey(
                        name: "FK_AccessKeys_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PersonClaims",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    UserId = table.Column<int>(type: "integer", nullable: false),
                    ClaimType = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    ClaimValue = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PersonClaims", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PersonClaims_People_UserId",
                        column: x => x.UserId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PersonLogins",
                columns: table => new
                {
                    LoginProvider = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ProviderKey = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ProviderDisplayName = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    UserId = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PersonLogins", x => new { x.LoginProvider, x.ProviderKey });
                    table.ForeignKey(
                        name: "FK_PersonLogins_People_UserId",
                        column: x => x.UserId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PersonTokens",
                columns: table => new
                {
                    UserId = table.Column<int>(type: "integer", nullable: false),
                    LoginProvider = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Value = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PersonTokens", x => new { x.UserId, x.LoginProvider, x.Name });
                    table.ForeignKey(
                        name: "FK_PersonTokens_People_UserId",
                        column: x => x.UserId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SignIns",
                columns: table => new
                {
                    Id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    PersonId = table.Column<int>(type: "integer", nullable: false),
                    BegunAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    From = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    EndedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignIns", x => x.Id);
                    table.ForeignKey(
                        name: "FK_SignIns_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "StandIns",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    AbsentId = table.Column<int>(type: "integer", nullable: false),
                    StandInId = table.Column<int>(type: "integer", nullable: false),
                    From = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    Revision = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StandIns", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StandIns_People_AbsentId",
                        column: x => x.AbsentId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_StandIns_People_StandInId",
                        column: x => x.StandInId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Deliveries",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    RunNumber = table.Column<int>(type: "integer", nullable: false),
                    Receiver = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AskedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    AskedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsBegun = table.Column<bool>(type: "boolean", nullable: false),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    NextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    Says = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Deliveries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Deliveries_PostingRuns_RunNumber",
                        column: x => x.RunNumber,
                        principalTable: "PostingRuns",
                        principalColumn: "Number",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "RehearsalOutcomes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    RehearsalId = table.Column<int>(type: "integer", nullable: false),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    Verdict = table.Column<int>(type: "integer", nullable: false),
                    Before = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    After = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    FirstFinding = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Changes = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RehearsalOutcomes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RehearsalOutcomes_Rehearsals_RehearsalId",
                        column: x => x.RehearsalId,
                        principalTable: "Rehearsals",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "VendorAccounts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    VendorId = table.Column<int>(type: "integer", nullable: false),
                    Iban = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AddedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    AddedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Reason = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ConfirmedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    ConfirmedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    EndedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    EndedBy = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_VendorAccounts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_VendorAccounts_Vendors_VendorId",
                        column: x => x.VendorId,
                        principalTable: "Vendors",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "VendorSpellings",
                columns: table => new
                {
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    VendorId = table.Column<int>(type: "integer", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_VendorSpellings", x => x.Key);
                    table.ForeignKey(
                        name: "FK_VendorSpellings_Vendors_VendorId",
                        column: x => x.VendorId,
                        principalTable: "Vendors",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Invoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    BatchId = table.Column<int>(type: "integer", nullable: false),
                    IntakeId = table.Column<int>(type: "integer", nullable: false),
                    FirstPage = table.Column<int>(type: "integer", nullable: false),
                    LastPage = table.Column<int>(type: "integer", nullable: false),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Template = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TemplateVersion = table.Column<int>(type: "integer", nullable: false),
                    Vendor = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    LooksLike = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Looks = table.Column<byte[]>(type: "bytea", nullable: false),
                    InvoiceNumber = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    InvoiceDate = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Currency = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Total = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    DueDate = table.Column<string>(type: "text", nullable: false, defaultValue: "9999-12-31", collation: "C"),
                    TotalSize = table.Column<long>(type: "bigint", nullable: false),
                    HandedTo = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SeenKey = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    LikeKey = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    VendorId = table.Column<int>(type: "integer", nullable: true),
                    Iban = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Stated = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TaxRounding = table.Column<int>(type: "integer", nullable: false, defaultValue: 7),
                    IsCreditNote = table.Column<bool>(type: "boolean", nullable: false),
                    Lines = table.Column<int>(type: "integer", nullable: false),
                    Findings = table.Column<int>(type: "integer", nullable: false),
                    FirstFinding = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    HeldBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Numbers = table.Column<int>(type: "integer", nullable: false),
                    NumbersTied = table.Column<int>(type: "integer", nullable: false),
                    IsTouched = table.Column<bool>(type: "boolean", nullable: false),
                    ApprovedSha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    FirstApprovedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    FirstApprovedFor = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    FirstApprovedSha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Traits = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    CodedBy = table.Column<string>(type: "text", nullable: false, defaultValue: "", collation: "C"),
                    CapturedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Revision = table.Column<int>(type: "integer", nullable: false, defaultValue: 1)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Invoices", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Invoices_Intakes_IntakeId",
                        column: x => x.IntakeId,
                        principalTable: "Intakes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "InvoiceRecords",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false),
                    Record = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_InvoiceRecords", x => x.Id);
                    table.ForeignKey(
                        name: "FK_InvoiceRecords_Invoices_Id",
                        column: x => x.Id,
                        principalTable: "Invoices",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_AccessKeys_PersonId",
                table: "AccessKeys",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_AccessKeys_Sha256",
                table: "AccessKeys",
                column: "Sha256",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Batches_Name",
                table: "Batches",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Captures_InvoiceId",
                table: "Captures",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_CodedCases_InvoiceId",
                table: "CodedCases",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_CodedCases_VendorId_Like",
                table: "CodedCases",
                columns: new[] { "VendorId", "Like" });

            migrationBuilder.CreateIndex(
                name: "IX_Corrections_InvoiceId",
                table: "Corrections",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_Corrections_Undoes",
                table: "Corrections",
                column: "Undoes",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Deliveries_RunNumber",
                table: "Deliveries",
                column: "RunNumber");

            migrationBuilder.CreateIndex(
                name: "IX_Deliveries_State_Receiver_Id",
                table: "Deliveries",
                columns: new[] { "State", "Receiver", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_DeskDrafts_Key",
                table: "DeskDrafts",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_History_Stream_Number",
                table: "History",
                columns: new[] { "Stream", "Number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Intakes_BatchId_Sha256",
                table: "Intakes",
                columns: new[] { "BatchId", "Sha256" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Intakes_Sha256",
                table: "Intakes",
                column: "Sha256");

            migrationBuilder.CreateIndex(
                name: "IX_Intakes_State",
                table: "Intakes",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_BatchId_State",
                table: "Invoices",
                columns: new[] { "BatchId", "State" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_IntakeId",
                table: "Invoices",
                column: "IntakeId");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_LikeKey",
                table: "Invoices",
                column: "LikeKey");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_SeenKey",
                table: "Invoices",
                column: "SeenKey");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_CodedBy",
                table: "Invoices",
                columns: new[] { "State", "CodedBy" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_DueDate_Id",
                table: "Invoices",
                columns: new[] { "State", "DueDate", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_LooksLike",
                table: "Invoices",
                columns: new[] { "State", "LooksLike" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_TotalSize_Id",
                table: "Invoices",
                columns: new[] { "State", "TotalSize", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_Vendor_Id",
                table: "Invoices",
                columns: new[] { "State", "Vendor", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Template_TemplateVersion_IntakeId",
                table: "Invoices",
                columns: new[] { "Template", "TemplateVersion", "IntakeId" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_IntakeId",
                table: "Invoices",
                columns: new[] { "VendorId", "IntakeId" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_IsCreditNote_State",
                table: "Invoices",
                columns: new[] { "VendorId", "IsCreditNote", "State" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_Iban_HeldBy",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "Iban", "HeldBy" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_Id",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_TaxRounding",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "TaxRounding" });

            migrationBuilder.CreateIndex(
                name: "IX_Layouts_Name_Version",
                table: "Layouts",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Leases_Node",
                table: "Leases",
                column: "Node");

            migrationBuilder.CreateIndex(
                name: "IX_Lists_Name_Version",
                table: "Lists",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "People",
                column: "NormalizedEmail");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "People",
                column: "NormalizedUserName",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PersonClaims_UserId",
                table: "PersonClaims",
                column: "UserId");

            migrationBuilder.CreateIndex(
                name: "IX_PersonLogins_UserId",
                table: "PersonLogins",
                column: "UserId");

            migrationBuilder.CreateIndex(
                name: "IX_PostedFiles_RunNumber_Name",
                table: "PostedFiles",
                columns: new[] { "RunNumber", "Name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PostedInvoices_InvoiceId",
                table: "PostedInvoices",
                column: "InvoiceId",
                unique: true,
                filter: "\"WithdrawnIn\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_PostedInvoices_RunNumber",
                table: "PostedInvoices",
                column: "RunNumber");

            migrationBuilder.CreateIndex(
                name: "IX_PostingRuns_RequestKey",
                table: "PostingRuns",
                column: "RequestKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PostingRuns_Reverses",
                table: "PostingRuns",
                column: "Reverses");

            migrationBuilder.CreateIndex(
                name: "IX_Receivers_Name_Version",
                table: "Receivers",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_RehearsalOutcomes_RehearsalId_Verdict_InvoiceId",
                table: "RehearsalOutcomes",
                columns: new[] { "RehearsalId", "Verdict", "InvoiceId" });

            migrationBuilder.CreateIndex(
                name: "IX_Rehearsals_RequestKey",
                table: "Rehearsals",
                column: "RequestKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SignIns_PersonId",
                table: "SignIns",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_StandIns_AbsentId",
                table: "StandIns",
                column: "AbsentId");

            migrationBuilder.CreateIndex(
                name: "IX_StandIns_StandInId",
                table: "StandIns",
                column: "StandInId");

            migrationBuilder.CreateIndex(
                name: "IX_TemplateChoices_IntakeId",
                table: "TemplateChoices",
                column: "IntakeId");

            migrationBuilder.CreateIndex(
                name: "IX_Templates_Name_Version",
                table: "Templates",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_VendorAccounts_VendorId_Iban",
                table: "VendorAccounts",
                columns: new[] { "VendorId", "Iban" },
                unique: true,
                filter: "\"EndedAt\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_VendorSpellings_Name",
                table: "VendorSpellings",
                column: "Name");

            migrationBuilder.CreateIndex(
                name: "IX_VendorSpellings_VendorId",
                table: "VendorSpellings",
                column: "VendorId");

            migrationBuilder.CreateIndex(
                name: "IX_Vendors_Key",
                table: "Vendors",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Vendors_Name",
                table: "Vendors",
                column: "Name");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "AccessKeys");

            migrationBuilder.DropTable(
                name: "ApprovalRulings");

            migrationBuilder.DropTable(
                name: "Captures");

            migrationBuilder.DropTable(
                name: "CodedCases");

            migrationBuilder.DropTable(
                name: "Codings");

            migrationBuilder.DropTable(
                name: "Corrections");

            migrationBuilder.DropTable(
                name: "Deliveries");

            migrationBuilder.DropTable(
                name: "DeskDrafts");

            migrationBuilder.DropTable(
                name: "History");

            migrationBuilder.DropTable(
                name: "InvoiceRecords");

            migrationBuilder.DropTable(
                name: "Layouts");

            migrationBuilder.DropTable(
                name: "Leases");

            migrationBuilder.DropTable(
                name: "Lists");

            migrationBuilder.DropTable(
                name: "PeriodClosings");

            migrationBuilder.DropTable(
                name: "PersonClaims");

            migrationBuilder.DropTable(
                name: "PersonLogins");

            migrationBuilder.DropTable(
                name: "PersonTokens");

            migrationBuilder.DropTable(
                name: "PostedFiles");

            migrationBuilder.DropTable(
                name: "PostedInvoices");

            migrationBuilder.DropTable(
                name: "Receivers");

            migrationBuilder.DropTable(
                name: "RehearsalOutcomes");

            migrationBuilder.DropTable(
                name: "SignIns");

            migrationBuilder.DropTable(
                name: "StandIns");

            migrationBuilder.DropTable(
                name: "TemplateChoices");

            migrationBuilder.DropTable(
                name: "Templates");

            migrationBuilder.DropTable(
                name: "VendorAccounts");

            migrationBuilder.DropTable(
                name: "VendorSpellings");

            migrationBuilder.DropTable(
                name: "PostingRuns");

            migrationBuilder.DropTable(
                name: "Invoices");

            migrationBuilder.DropTable(
                name: "Rehearsals");

            migrationBuilder.DropTable(
                name: "People");

            migrationBuilder.DropTable(
                name: "Vendors");

            migrationBuilder.DropTable(
                name: "Intakes");

            migrationBuilder.DropTable(
                name: "Batches");
        }
    }
}
