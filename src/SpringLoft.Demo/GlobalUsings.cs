global using System.Data;
global using NodaTime;
global using SpringLoft.Core;
