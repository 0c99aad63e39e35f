-- A job is found by the labels of the spare cables that were plugged in; what is found by is written anew for those.
delete from job_search where job_id in (select job_id from job_seat where piece like 'bag:%');
